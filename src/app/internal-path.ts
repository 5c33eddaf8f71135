/**
 * A path of this app to go to: the start page where the address leads anywhere else, as `//host` does, and `/` with a
 * backslash or a tab after it.
 */
export function internalPath(asked: unknown): string {
  const here = 'http://here.invalid';
  if (typeof asked !== 'string' || !asked.startsWith('/') || !URL.canParse(asked, here)) return '/';
  const { origin, pathname, search, hash } = new URL(asked, here);
  const path = pathname + search + hash;
  // The rest may be read as another host once more.
  return origin === here && !path.startsWith('//') ? path : '/';
}
