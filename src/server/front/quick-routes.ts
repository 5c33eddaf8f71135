import type { IncomingMessage, ServerResponse } from 'node:http';
import { EVENT_HEADERS, eventResponse, type EventStream } from '../live/event-stream';
import { processWide } from '../process-wide';
import type { Handler } from './front-door';

/** What a route reads of a request: a Request of the web, or what stands for one here. */
export interface Asked {
  readonly url: string;
  readonly headers: { get(name: string): string | null };
  /** Aborted when the caller goes away. */
  readonly signal: AbortSignal;
  readonly body: ReadableStream<Uint8Array> | AsyncIterable<Uint8Array> | null;
}

/** What a route answers with: a value as JSON, events as they come, or anything. */
export type Answer = { readonly json: unknown } | { readonly events: EventStream } | Response;

/** The parts of a path that vary, by their names. */
export interface RouteContext {
  readonly params: Promise<Readonly<Record<string, string>>>;
}

export type Route<A extends Answer = Response> = (request: Asked, context: RouteContext) => Promise<A>;

interface QuickRoute {
  readonly method: string;
  readonly path: RegExp;
  readonly route: Route<Answer>;
}

const quickRoutes = () => processWide('quick-routes', () => new Map<string, QuickRoute>());

/**
 * A route of the framework that the front door answers by itself once the framework has loaded it: for requests of
 * which there are hundreds a second, as the framework takes a millisecond for each. `name` is the method and the path
 * with its parts that vary in brackets.
 */
export function quick(name: `${'GET' | 'POST'} /${string}`, route: Route<Answer>): Route {
  const [method = '', path = ''] = name.split(' ');
  const pattern = path.replaceAll(/\[(\w+)\]/g, '(?<$1>[^/]+)');
  quickRoutes().set(name, { method, path: new RegExp(`^${pattern}$`), route });
  return async (request, context) => responseOf(await route(request, context));
}

function responseOf(answer: Answer): Response {
  if (answer instanceof Response) return answer;
  if ('json' in answer) return Response.json(answer.json);
  return eventResponse(answer.events);
}

/** Answers quick routes, and gives all else to the framework. */
export function withQuickRoutes(handle: Handler): Handler {
  return async (request, response) => {
    const path = request.url?.split('?', 1)[0] ?? '/';
    for (const { method, path: pattern, route } of quickRoutes().values()) {
      const found = request.method === method ? pattern.exec(path) : null;
      if (found) return send(await route(askedOf(request, response), { params: paramsOf(found) }), request, response);
    }
    return handle(request, response);
  };
}

async function paramsOf({ groups = {} }: RegExpExecArray): Promise<Record<string, string>> {
  try {
    return Object.fromEntries(Object.entries(groups).map(([name, text]) => [name, decodeURIComponent(text)]));
  } catch {
    // No name of anything is spelled so.
    return {};
  }
}

const askedOf = (request: IncomingMessage, response: ServerResponse): Asked => ({
  url: `http://localhost${request.url ?? '/'}`,
  headers: { get: (name) => request.headers[name]?.toString() ?? null },
  // Made only for those that ask for it.
  get signal() {
    const leaving = new AbortController();
    if (response.closed) leaving.abort();
    else response.once('close', () => leaving.abort());
    return leaving.signal;
  },
  body: request,
});

async function send(answer: Answer, request: IncomingMessage, response: ServerResponse): Promise<void> {
  if ('events' in answer) return sendEvents(answer.events, response);
  if ('json' in answer && !(answer instanceof Response)) {
    response.setHeader('content-type', 'application/json');
    end(response, Buffer.from(JSON.stringify(answer.json)));
  } else {
    response.statusCode = answer.status;
    answer.headers.forEach((value, name) => response.setHeader(name, value));
    end(response, Buffer.from(await answer.arrayBuffer()));
  }
  // What is left of a body that was not read is thrown away, so that the connection can be used again.
  request.resume();
}

function end(response: ServerResponse, body: Buffer): void {
  if (response.statusCode !== 204) response.setHeader('content-length', body.length);
  response.end(body);
}

/** Bytes that may wait for a reader who is slower than what comes: then the stream ends, and it comes back later. */
const MOST_WAITING = 4_000_000;

async function sendEvents({ sendTo, stop }: EventStream, response: ServerResponse): Promise<void> {
  for (const [name, value] of Object.entries(EVENT_HEADERS)) response.setHeader(name, value);
  // The end of the connection is the end of the stream: without the framing of chunks around each event.
  response.setHeader('connection', 'close');
  response.removeHeader('transfer-encoding');
  response.flushHeaders();
  response.once('close', stop);
  const over = new Promise((resolve) => response.once('close', resolve));
  try {
    await sendTo({
      write(bytes) {
        if (response.writableLength > MOST_WAITING) response.destroy();
        else response.write(bytes);
      },
      end: () => response.end(),
    });
    await over;
  } catch (error) {
    response.destroy();
    throw error;
  }
}
