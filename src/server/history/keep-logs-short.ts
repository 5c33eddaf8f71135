import { longWork, type Sql } from '../database';
import { log } from '../log';
import { settings, type Settings } from '../settings';
import { sheetsWithOldLog } from '../sql/log-start';
import { shortenLog } from './shorten-log';

/** How often old changes are looked for. */
const LOOK_MS = 6 * 3_600_000;
const DAY_MS = 86_400_000;
/** Sheets that are looked up at once. */
const SHEETS_AT_ONCE = 100;

/** Removes old changes from now on, where a setting says how long they are kept. */
export function startShortening(): void {
  const { historyDays } = settings();
  if (historyDays === undefined) return;
  const shorten = (): void =>
    void shortenLogs(longWork(), settings(), Date.now()).catch((error: unknown) =>
      log().error({ err: error }, 'logs could not be shortened'),
    );
  setInterval(shorten, LOOK_MS).unref();
  shorten();
}

/** Removes the old changes of all sheets. Returns how many went. */
export async function shortenLogs(
  sql: Sql,
  { historyDays, historyArchive }: Pick<Settings, 'historyDays' | 'historyArchive'>,
  nowMs: number,
): Promise<number> {
  if (historyDays === undefined) return 0;
  const before = new Date(nowMs - historyDays * DAY_MS);
  let removed = 0;
  for (let after = '', more = true; more;) {
    const sheets = await sheetsWithOldLog(sql, { before, after, limit: SHEETS_AT_ONCE });
    for (const sheet of sheets) {
      removed += await shortenLog(sql, sheet, { before, archive: historyArchive ?? null });
      after = sheet;
    }
    more = sheets.length === SHEETS_AT_ONCE;
  }
  if (removed) log().info({ removed }, 'old changes were removed from logs');
  return removed;
}
