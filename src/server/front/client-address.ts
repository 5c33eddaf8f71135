import type { IncomingMessage } from 'node:http';
import type { Settings } from '../settings';

/**
 * The address that a request comes from: of the connection, or, behind a trusted proxy, the last that the proxy added
 * to X-Forwarded-For.
 */
export function clientOf(
  { headers, socket }: Pick<IncomingMessage, 'headers' | 'socket'>,
  { trustsProxy }: Pick<Settings, 'trustsProxy'>,
): string {
  const forwarded = headers['x-forwarded-for'];
  const last = trustsProxy
    ? (Array.isArray(forwarded) ? forwarded.join(',') : forwarded)?.split(',').at(-1)?.trim()
    : undefined;
  return last || socket.remoteAddress || 'unknown';
}
