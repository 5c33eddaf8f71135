import type { SheetId } from '../../core/sheet/ids';
import { connectLinked, type LinkedConnection } from '../../linked/linked-connection';
import { processWide } from '../process-wide';

/** Databases that are connected to at most; the one that was not used for longest makes room. */
const MAX_CONNECTED = 16;
/** A statement of a page may take so long. */
export const STATEMENT_MS = 60_000;

const connected = () =>
  processWide('linked-pool', () => new Map<SheetId, { readonly url: string; readonly connection: LinkedConnection }>());

/** The connections of a sheet's table: two at once, so that no sheet keeps a database busy. */
export function linkedConnection(sheet: SheetId, url: string): LinkedConnection {
  const pool = connected();
  const known = pool.get(sheet);
  if (known) pool.delete(sheet);
  const entry =
    known?.url === url
      ? known
      : { url, connection: connectLinked(url, { max: 2, statementMs: STATEMENT_MS, idleS: 60 }) };
  if (known && known !== entry) void known.connection.end({ timeout: 5 });
  pool.set(sheet, entry);
  const [oldest] = pool.keys();
  if (pool.size > MAX_CONNECTED && oldest !== undefined) {
    void pool.get(oldest)?.connection.end({ timeout: 5 });
    pool.delete(oldest);
  }
  return entry.connection;
}
