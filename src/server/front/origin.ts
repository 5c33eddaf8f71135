import type { IncomingHttpHeaders } from 'node:http';
import type { Settings } from '../settings';

/** The host name of a Host header (RFC 9110, 7.2) without its port; undefined where it is none. */
export function hostName(host: string | undefined): string | undefined {
  return /^(\[[\da-fA-F:.]+\]|[^:/?#@\s]+)(?::\d{1,5})?$/.exec(host ?? '')?.[1]?.toLowerCase();
}

/**
 * Whether the app may be asked for by this Host header: so that a foreign name that leads here gets nothing (DNS
 * rebinding).
 */
export const isOurHost = (host: string | undefined, { hosts }: Pick<Settings, 'hosts'>): boolean =>
  hosts.includes(hostName(host) ?? '');

const SAFE: readonly string[] = ['GET', 'HEAD', 'OPTIONS'];

/**
 * Whether a request that may change something comes from a page of ours, from the person's own typing, or from a
 * program. Browsers say so in Sec-Fetch-Site (Fetch Metadata, W3C); older ones by Origin (RFC 6454). Programs send
 * neither cookies nor these headers: they come by a token.
 */
export function mayChange({
  method,
  headers,
}: {
  readonly method: string;
  readonly headers: IncomingHttpHeaders;
}): boolean {
  if (SAFE.includes(method)) return true;
  if (/^bearer /i.test(headers.authorization ?? '') && headers.cookie === undefined) return true;
  const site = headers['sec-fetch-site'];
  if (site !== undefined) return site === 'same-origin' || site === 'none';
  const { origin } = headers;
  return origin === undefined || isSameHost(origin, headers.host);
}

function isSameHost(origin: string, host: string | undefined): boolean {
  try {
    return new URL(origin).host === host?.toLowerCase();
  } catch {
    return false;
  }
}
