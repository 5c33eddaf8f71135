/** Codes of the driver and of Node for a database that cannot be reached. */
const UNREACHED: ReadonlySet<string> = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'CONNECTION_CLOSED',
  'CONNECTION_ENDED',
  'CONNECTION_DESTROYED',
  'CONNECT_TIMEOUT',
]);

/**
 * Classes and codes of PostgreSQL (its manual, appendix A) for what passes: connection lost, no room or memory, being
 * shut down or started, turned back for another's sake, taking too long.
 */
const PASSING = /^(08|53|57P|57014|40001|40P01|55P03|25P03)/;

/** Whether an error says that the database cannot work just now, so that the same request may be taken later. */
export function isUnavailable(error: unknown): boolean {
  const { code } = error as { code?: unknown };
  return typeof code === 'string' && (UNREACHED.has(code) || PASSING.test(code));
}
