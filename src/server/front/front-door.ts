import type { IncomingMessage, ServerResponse } from 'node:http';
import { customAlphabet, nanoid } from 'nanoid';
import { itemAt } from '../../core/values/item-at';
import { log, loggedPath, requestIds } from '../log';
import { metrics } from '../metrics';
import type { Settings } from '../settings';
import { clientOf } from './client-address';
import { isOurHost, mayChange } from './origin';
import { contentPolicy, securityHeaders } from './security-headers';

/** Headers by which the front door describes a request to the app. What a client sends under these names is dropped. */
export const CLIENT_HEADER = 'x-auxesis-client';
export const REQUEST_HEADER = 'x-auxesis-request';

/** 130 random bits, as the Content Security Policy asks for 128. */
const newNonce = customAlphabet('ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789', 22);

export type Handler = (request: IncomingMessage, response: ServerResponse) => Promise<void>;

/**
 * Stands before the app and lets in what it should answer: requests for a host name of ours, and changes that come from
 * a page of ours or from a program. Every answer gets the headers of `securityHeaders`.
 */
export function frontDoor(settings: Settings, handle: Handler): Handler {
  return async (request, response) => {
    const { headers, method = 'GET' } = request;
    const nonce = newNonce();
    const id = nanoid(12);
    const path = itemAt((request.url ?? '/').split('?', 1), 0);
    for (const [name, value] of Object.entries(securityHeaders(path, nonce, settings))) response.setHeader(name, value);
    response.setHeader('x-request-id', id);
    if (!isOurHost(headers.host, settings))
      return refuse(response, 421, 'This server does not answer by this name. Ask for it by its own address.');
    if (!mayChange({ method, headers }))
      return refuse(
        response,
        403,
        'This request comes from another site, so nothing was changed. Do it from a page of the app.',
      );
    const client = clientOf(request, settings);
    if (!settings.trustsProxy) for (const name of FORWARDED) delete headers[name];
    headers[CLIENT_HEADER] = client;
    headers[REQUEST_HEADER] = id;
    // The framework finds here which nonce its scripts must carry.
    headers['content-security-policy'] = contentPolicy(nonce);
    headers['x-nonce'] = nonce;
    const began = performance.now();
    response.once('close', () => noteRequest(request, response, (performance.now() - began) / 1000));
    await requestIds.run(id, () => handle(request, response));
  };
}

/** Logs and measures a request once it is answered. Of streams only the beginning is measured, since they go on. */
function noteRequest({ method = 'GET', url = '/' }: IncomingMessage, response: ServerResponse, seconds: number): void {
  const path = loggedPath(url);
  const isStream = String(response.getHeader('content-type') ?? '').startsWith('text/event-stream');
  if (!isStream) metrics().requestSeconds.observe({ method, status: String(response.statusCode) }, seconds);
  if (path.startsWith('/_next/') || path === '/api/health') return;
  log().info(
    {
      request: response.getHeader('x-request-id'),
      method,
      path,
      status: response.statusCode,
      ms: Math.round(seconds * 1000),
    },
    'answered',
  );
}

const FORWARDED = [
  'x-forwarded-for',
  'x-forwarded-host',
  'x-forwarded-proto',
  'x-forwarded-port',
  'forwarded',
] as const;

async function refuse(response: ServerResponse, status: number, refused: string): Promise<void> {
  response.statusCode = status;
  response.setHeader('content-type', 'application/json');
  // The rest of the body is not read.
  response.setHeader('connection', 'close');
  await new Promise<void>((resolve) => response.end(JSON.stringify({ refused }), resolve));
}
