import { isMaker } from '../../core/sharing/role';
import { itemAt } from '../../core/values/item-at';
import type { SheetId } from '../../core/sheet/ids';
import type { Sql } from '../database';
import { settings } from '../settings';
import { findHook } from '../sql/webhook';
import { readImportant, type InsertedFinding } from '../sql/finding';
import { insertMail } from '../sql/mail';
import { readMembers } from '../sql/member';
import { findSheet } from '../sql/sheet';
import { findingLine } from './finding-line';
import { webhookRefusal } from './webhook-address';
import { log } from '../log';

/** How long a local address has to take findings. */
const HOOK_MS = 3000;
/** Findings that a mail lists one by one. */
const MAX_LINES = 20;

/** Sends new findings at once: those of important rules by mail, all of them to the sheet's webhook. */
export async function passOn(sql: Sql, id: SheetId, findings: readonly InsertedFinding[]): Promise<void> {
  const sheet = await findSheet(sql, id);
  if (!sheet) return;
  const important = new Set(await readImportant(sql, id));
  const urgent = findings.filter(({ rule, way }) => important.has(rule) && way === 'entered');
  if (urgent.length) {
    const lines = urgent.slice(0, MAX_LINES).map(findingLine);
    if (urgent.length > MAX_LINES) lines.push(`and ${urgent.length - MAX_LINES} more`);
    for (const { id: person, email, role } of await readMembers(sql, id))
      if (isMaker(role))
        await insertMail(sql, {
          sender: person,
          recipient: email,
          subject: `${itemAt(urgent, 0).ruleName}: ${sheet.name}`,
          body: lines.join('\n'),
        });
  }
  const url = await findHook(sql, id);
  // Also where it was allowed once: the setting may say otherwise by now.
  if (url === undefined || webhookRefusal(url, settings()) !== null) return;
  // A webhook is called once; what it misses is in the feed.
  void fetch(url, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ sheet: id, name: sheet.name, findings: findings.map(({ author: _, ...told }) => told) }),
    redirect: 'error',
    signal: AbortSignal.timeout(HOOK_MS),
  }).catch((error: unknown) => log().error({ err: error }, 'findings could not be posted'));
}
