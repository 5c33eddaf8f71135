import type { Settings } from '../settings';

/**
 * The sources that a page may load and run (Content Security Policy 3, W3C). Scripts run only with the nonce of the
 * answer, and those that they load. Styles may stand in the page, as the library of the interface sets sizes and
 * colours there.
 */
export const contentPolicy = (nonce: string): string =>
  [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${DEVELOPMENT}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');

/** In development the framework evaluates texts, to put source positions into errors. */
const DEVELOPMENT = process.env.NODE_ENV === 'development' ? " 'unsafe-eval'" : '';

/** The headers of every answer. Files of the app that never change may be kept by caches; all else is private. */
export function securityHeaders(
  path: string,
  nonce: string,
  { publicUrl }: Pick<Settings, 'publicUrl'>,
): Readonly<Record<string, string>> {
  return {
    'content-security-policy': contentPolicy(nonce),
    'x-content-type-options': 'nosniff',
    'x-frame-options': 'DENY',
    // Addresses of links hold their token.
    'referrer-policy': 'no-referrer',
    'permissions-policy': 'camera=(), geolocation=(), microphone=(), payment=(), usb=(), browsing-topics=()',
    'cross-origin-opener-policy': 'same-origin',
    'cross-origin-resource-policy': 'same-origin',
    ...(publicUrl.startsWith('https:') ? { 'strict-transport-security': 'max-age=31536000' } : {}),
    ...(path.startsWith('/_next/static/') ? {} : { 'cache-control': 'no-store' }),
  };
}
