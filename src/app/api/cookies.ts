import { parseCookie } from 'cookie';
import { cookies, headers } from 'next/headers';
import { database } from '../../server/database';
import type { SheetId } from '../../core/sheet/ids';
import type { Tokens } from '../../server/access/find-access';
import { settings } from '../../server/settings';
import { CLIENT_HEADER } from '../../server/front/front-door';
import type { Asked } from '../../server/front/quick-routes';
import { beginSession, DEVICE_DAYS, SESSION_DAYS } from '../../server/people/session';

const SESSION = 'auxesis-session';
const DEVICE = 'auxesis-device';
const visitOf = (sheet: SheetId): string => `auxesis-visit-${sheet}`;

/** Not for scripts, nor for requests that other sites make. */
const OURS = { httpOnly: true, sameSite: 'lax', path: '/' } as const;

const seconds = (days: number): number => days * 86_400;

export async function sessionToken(): Promise<string | undefined> {
  return (await cookies()).get(SESSION)?.value;
}

/** The tokens that a request carries for a sheet. */
export function tokensIn({ headers }: Pick<Asked, 'headers'>, sheet: SheetId): Tokens {
  const jar = parseCookie(headers.get('cookie') ?? '');
  return { session: jar[SESSION], visit: jar[visitOf(sheet)] };
}

/** The same of a request for a page. */
export const tokensFor = async (sheet: SheetId): Promise<Tokens> => tokensIn({ headers: await headers() }, sheet);

/** The client of a request: its address, and the token of a browser in which somebody has signed in before. */
export async function guesserOf(
  request: Request,
): Promise<{ readonly client: string; readonly device: string | undefined }> {
  return { client: request.headers.get(CLIENT_HEADER) ?? 'unknown', device: (await cookies()).get(DEVICE)?.value };
}

/** Signs a person in, in the browser that asks; a session there before ends. */
export async function signInHere(person: string, request: Request): Promise<void> {
  const jar = await cookies();
  const browser = {
    ...(await guesserOf(request)),
    session: jar.get(SESSION)?.value,
    agent: request.headers.get('user-agent') ?? '',
  };
  const { session, device } = await beginSession(database(), person, browser);
  const secure = isSecure(request);
  jar.set(SESSION, session, { ...OURS, secure, maxAge: seconds(SESSION_DAYS) });
  jar.set(DEVICE, device, { ...OURS, secure, maxAge: seconds(DEVICE_DAYS) });
}

/** Ends the session in the browser that asks. */
export async function endSession(request: Request): Promise<void> {
  (await cookies()).set(SESSION, '', { ...OURS, secure: isSecure(request), maxAge: 0 });
}

/** The token of a visit to a sheet that this browser has. */
export const visitHere = async (sheet: SheetId): Promise<string | undefined> =>
  (await cookies()).get(visitOf(sheet))?.value;

/**
 * Keeps a visit to a sheet in the browser. The link says how long it is good for; browsers keep cookies for 400 days at
 * most.
 */
export async function keepVisit(sheet: SheetId, token: string, request: Request): Promise<void> {
  (await cookies()).set(visitOf(sheet), token, { ...OURS, secure: isSecure(request), maxAge: seconds(400) });
}

/** Whether the browser gets a cookie over TLS alone: where the app is reached by it, or a trusted proxy says so. */
const isSecure = (request: Request): boolean =>
  settings().publicUrl.startsWith('https:') ||
  request.headers.get('x-forwarded-proto')?.split(',').at(-1)?.trim() === 'https';
