import type { SheetId } from '../../core/sheet/ids';
import { connectLinked, type LinkedConnection } from '../../linked/linked-connection';
import { refusalText } from '../../texts/refusal-text';
import { boundedQueue, type BoundedQueue } from '../bounded-queue';
import { processWide } from '../process-wide';

/** Databases that are connected to at most; the one that was not used for longest makes room. */
const MAX_CONNECTED = 16;
/** A statement of a page may take so long. */
export const STATEMENT_MS = 60_000;

/** Questions of one sheet that are asked at once, and that wait: no sheet keeps a database busy. */
const AT_ONCE = 2;
const MAX_WAITING = 24;

/** A database of a sheet, and the turns in which it is asked. */
interface Linked {
  readonly url: string;
  readonly connection: LinkedConnection;
  readonly inTurn: BoundedQueue;
}

const connected = () => processWide('linked-pool', () => new Map<SheetId, Linked>());

const connect = (url: string): Linked => ({
  url,
  connection: connectLinked(url, { max: AT_ONCE, statementMs: STATEMENT_MS, idleS: 60 }),
  inTurn: boundedQueue(AT_ONCE, MAX_WAITING, refusalText('databaseIsBusy')),
});

/** The database of a sheet's table. */
export function linkedDatabase(sheet: SheetId, url: string): Linked {
  const pool = connected();
  const known = pool.get(sheet);
  pool.delete(sheet);
  const linked = known?.url === url ? known : connect(url);
  if (known && known !== linked) void known.connection.end({ timeout: 5 });
  pool.set(sheet, linked);
  const [oldest] = pool;
  if (pool.size > MAX_CONNECTED && oldest) {
    pool.delete(oldest[0]);
    // What it is asked just now is answered.
    void oldest[1].connection.end({ timeout: 60 });
  }
  return linked;
}
