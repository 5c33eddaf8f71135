import { cookies } from 'next/headers';
import type { SheetId } from '../../core/sheet/ids';
import type { Tokens } from '../../server/access/find-access';
import { SESSION_DAYS } from '../../server/people/session';

const SESSION = 'auxesis-session';
const visitOf = (sheet: SheetId): string => `auxesis-visit-${sheet}`;

/** Not for scripts, nor for requests that other sites make. */
const OURS = { httpOnly: true, sameSite: 'lax', path: '/' } as const;

const seconds = (days: number): number => days * 86_400;

export async function sessionToken(): Promise<string | undefined> {
  return (await cookies()).get(SESSION)?.value;
}

/** The tokens that a request carries for a sheet. */
export async function tokensFor(sheet: SheetId): Promise<Tokens> {
  const jar = await cookies();
  return { session: jar.get(SESSION)?.value, visit: jar.get(visitOf(sheet))?.value };
}

/** Keeps a session in the browser; null ends it there. */
export async function keepSession(token: string | null, request: Request): Promise<void> {
  (await cookies()).set(SESSION, token ?? '', { ...OURS, secure: isSecure(request), maxAge: token === null ? 0 : seconds(SESSION_DAYS) });
}

/** Keeps a visit to a sheet in the browser. The link says how long it is good for; browsers keep cookies for 400 days at most. */
export async function keepVisit(sheet: SheetId, token: string, request: Request): Promise<void> {
  (await cookies()).set(visitOf(sheet), token, { ...OURS, secure: isSecure(request), maxAge: seconds(400) });
}

const isSecure = (request: Request): boolean => (request.headers.get('x-forwarded-proto') ?? new URL(request.url).protocol).startsWith('https');
