import type { SheetId } from '../../../core/sheet/ids';
import type { Endpoint } from '../../../protocol/programs/endpoint';
import { SCOPES, type Scope } from '../../../protocol/programs/scopes';
import { database } from '../../../server/database';
import { hashToken } from '../../../server/people/token';
import { countRequest } from '../../../server/programs/request-limit';
import { Refusal } from '../../../server/refusal';
import { findProgram, type FoundProgram } from '../../../server/sql/program';
import { findSheet } from '../../../server/sql/sheet';
import { LARGE_BODY, readBody } from '../read-body';
import { readQuery } from '../read-query';
import { respond } from '../respond';
import { refusalText } from '../../../texts/refusal-text';

export interface ProgramRequest<Query, Body> {
  readonly program: FoundProgram;
  readonly query: Query;
  readonly body: Body;
  readonly request: Request;
  /** The sheet's last change; 0 where the request is about no sheet. */
  readonly head: number;
}

interface ProgramCall {
  readonly request: Request;
  /** The parts of the path; absent where it is about no sheet. */
  readonly params?: Promise<{ id: string }>;
}

const QUARTER_MS = 900_000;
const DESCRIBED = '</api/v1/openapi.json>; rel="service-desc"';

/**
 * Answers a request of a program: authenticates it, checks scope, rate limit and the request itself. With `etag`, an
 * answer that depends on the sheet alone carries its ETag, and is not made again for a client that has it.
 */
export function answerProgram<Query, Body>(
  endpoint: Endpoint,
  { request, params }: ProgramCall,
  handle: (asked: ProgramRequest<Query, Body>) => Promise<Response>,
): Promise<Response> {
  let headers: Readonly<Record<string, string>> = {};
  return respond(async () => {
    const program = await programOf(request);
    const allowance = await countRequest(program.id);
    headers = allowance.headers;
    if (allowance.isOver)
      throw new Refusal('too-often', refusalText('tooManyRequestsAsk', { retryAfter: headers['retry-after'] ?? '' }));
    const sheet = params && (await params).id;
    const head = sheet === undefined ? 0 : await headOf(sheet, program);
    if (endpoint.scope !== null && !program.scopes.includes(endpoint.scope))
      throw new Refusal('not-allowed', refusalFor(endpoint.scope));
    // Looks may be time-dependent: days begin on a quarter of an hour in every time zone.
    const etag = `"${program.sheet}-${Math.floor(Date.now() / QUARTER_MS)}-${head}"`;
    const isTagged = endpoint.headers?.['If-None-Match'] !== undefined;
    if (isTagged && request.headers.get('if-none-match') === etag)
      return new Response(null, { status: 304, headers: { etag } });
    const query = (
      endpoint.query ? readQuery(new URL(request.url).searchParams, endpoint.query as never, 'no-more') : {}
    ) as Query;
    const body = (endpoint.body ? await readBody(request, endpoint.body, LARGE_BODY) : undefined) as Body;
    const response = await handle({ program, query, body, request, head });
    if (isTagged) response.headers.set('etag', etag);
    return response;
  }).then((response) => {
    for (const [name, value] of Object.entries(headers)) response.headers.set(name, value);
    response.headers.set('link', DESCRIBED);
    response.headers.set('cache-control', 'no-store');
    return response;
  });
}

/** The answer to a program without the scope. */
export const refusalFor = (scope: Scope): string =>
  refusalText('tokenMayNotWhat', {
    what: SCOPES[scope],
    scope,
  });

/** The token that a request carries (RFC 6750). */
export const bearerOf = (request: Request): string | undefined =>
  /^Bearer +(\S+)$/i.exec(request.headers.get('authorization') ?? '')?.[1];

async function programOf(request: Request): Promise<FoundProgram> {
  const token = bearerOf(request);
  if (token === undefined) throw new Refusal('sign-in', refusalText('sayWhoYouHeader'));
  const program = await findProgram(database(), hashToken(token));
  if (!program) throw new Refusal('sign-in', refusalText('tokenNotValidMay'));
  return program;
}

async function headOf(sheet: SheetId, program: FoundProgram): Promise<number> {
  const found = sheet === program.sheet ? await findSheet(database(), sheet) : undefined;
  // Somebody else's sheet answers like one that does not exist.
  if (!found) throw new Refusal('no-sheet', refusalText('thereNoSuchSheetToken', { sheet: program.sheet }));
  return found.head;
}
