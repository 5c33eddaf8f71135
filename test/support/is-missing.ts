import { existsSync } from 'node:fs';

/**
 * True where one of some programs is not installed, of those that `npm test` installs. Tests that need them are then
 * skipped with a message.
 */
export function isMissing(...paths: readonly string[]): boolean {
  const missing = paths.filter((path) => !existsSync(path));
  if (missing.length) console.warn(`Tests are skipped: there is no ${missing.join(', ')}. "npm test" installs it.`);
  return missing.length > 0;
}
