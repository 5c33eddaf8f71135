import type Joi from 'joi';
import type { Access } from '../../server/access/access';
import type { Permit } from '../../server/access/permits';
import type { Answer, Asked, Route, RouteContext } from '../../server/front/quick-routes';
import type { Person } from '../../server/sql/person';
import { allow, requirePerson, type Allowed } from './allow';
import { readBody } from './read-body';
import { readQuery } from './read-query';
import { respond } from './respond';

// Each route of the app says here what it needs of its caller and its request, so that all are checked in one order:
// access, account, query, body. The tests of access read the declarations from the files of the routes.

interface Needs<Q, B> {
  readonly query?: Joi.ObjectSchema<Q>;
  readonly body?: Joi.Schema<B>;
  /** Bytes of the body at most; the usual number where absent. */
  readonly most?: number;
}

interface SheetNeeds<Q, B> extends Omit<Needs<Q, B>, 'most'> {
  /** What the caller must be allowed to do with the sheet. */
  readonly permit: Permit;
  /** Bytes of the body at most, or as many as a caller may send; the usual number where absent. */
  readonly most?: number | ((access: Access) => number);
}

interface Call<Q, B, R = Request> {
  readonly request: R;
  readonly query: Q;
  readonly body: B;
  /** A part of the path that varies. Throws a RangeError where the path has none of this name. */
  readonly param: (name: string) => string;
}

type PersonCall<Q, B> = Call<Q, B> & { readonly person: Person };
type SheetCall<Q, B, R> = Call<Q, B, R> & Allowed;

type Handler = (request: Request, context: RouteContext) => Promise<Response>;

/** A route for anybody. */
export const openRoute =
  <Q = undefined, B = undefined>(needs: Needs<Q, B>, run: (call: Call<Q, B>) => Promise<Response>): Handler =>
  (request, { params }) =>
    respond(async () => run(await callOf(request, await params, needs)));

/** A route for somebody with an account. */
export const personRoute =
  <Q = undefined, B = undefined>(needs: Needs<Q, B>, run: (call: PersonCall<Q, B>) => Promise<Response>): Handler =>
  (request, { params }) =>
    respond(async () => {
      const person = await requirePerson();
      return run({ ...(await callOf(request, await params, needs)), person });
    });

/** A route of the sheet that its path names by `id`. */
export const sheetRoute =
  <A extends Answer, Q = undefined, B = undefined>(
    needs: SheetNeeds<Q, B>,
    run: (call: SheetCall<Q, B, Asked>) => Promise<A>,
  ): Route<A | Response> =>
  (request, { params }) =>
    respond(async () => {
      const allowed = await allow(request, (await params).id, needs.permit);
      return run({ ...(await sheetCallOf(request, await params, { needs, allowed })), ...allowed });
    });

/** A route of a sheet for somebody who has an account: visitors by a link have none. */
export const sheetPersonRoute =
  <Q = undefined, B = undefined>(
    needs: SheetNeeds<Q, B>,
    run: (call: SheetCall<Q, B, Request> & { readonly person: Person }) => Promise<Response>,
  ): Handler =>
  (request, { params }) =>
    respond(async () => {
      const allowed = await allow(request, (await params).id, needs.permit);
      const person = await requirePerson();
      return run({ ...(await sheetCallOf(request, await params, { needs, allowed })), ...allowed, person });
    });

function sheetCallOf<Q, B, R extends Asked>(
  request: R,
  params: Readonly<Record<string, string>>,
  { needs: { most, ...needs }, allowed }: { readonly needs: SheetNeeds<Q, B>; readonly allowed: Allowed },
): Promise<Call<Q, B, R>> {
  const bytes = typeof most === 'function' ? most(allowed.access) : most;
  return callOf(request, params, { ...needs, ...(bytes === undefined ? {} : { most: bytes }) });
}

async function callOf<Q, B, R extends Asked>(
  request: R,
  params: Readonly<Record<string, string>>,
  { query, body, most }: Needs<Q, B>,
): Promise<Call<Q, B, R>> {
  return {
    request,
    // Without a schema the type of what is read is undefined, and so is its value.
    query: (query && readQuery(new URL(request.url).searchParams, query)) as Q,
    body: (body && (await readBody(request, body, most))) as B,
    param(name) {
      const value = params[name];
      if (value === undefined) throw new RangeError(`The path of this route has no "${name}".`);
      return value;
    },
  };
}
