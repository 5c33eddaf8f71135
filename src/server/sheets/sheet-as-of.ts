import { setImmediate } from 'node:timers/promises';
import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import { rulesOf } from '../../core/rules/shape/stored-rule';
import type { SheetId } from '../../core/sheet/ids';
import { Sheet } from '../../core/sheet/sheet';
import { SheetPacker } from '../../protocol/packed/packed-sheet';
import type { Sql } from '../database';
import { readChangesBefore } from '../sql/change';
import { readFields } from '../sql/field';
import { readParts } from '../sql/part';
import { readRowsInBatches } from '../sql/row';
import { readRules } from '../sql/rule';
import { hasLogAfter } from '../sql/log-start';
import { findSheet } from '../sql/sheet';
import { Refusal } from '../refusal';
import { refusalText } from '../../texts/refusal-text';

const compress = promisify(gzip);
/** Changes undone at once. */
const BATCH = 20;
/** Rows packed at once. */
const ROWS_AT_ONCE = 1000;

/**
 * The packed sheet (see packed-sheet.ts) as it was after the change with a sequence, 0 for as it was made: the sheet of
 * now with all later changes undone. `asOf` is the moment of that change.
 */
export async function packedAsOf(sql: Sql, id: SheetId, sequence: number): Promise<Uint8Array<ArrayBuffer>> {
  const packer = await sql.begin('isolation level repeatable read read only', async (tx) => {
    const head = await findSheet(tx, id);
    if (!head) throw new Refusal('no-sheet', refusalText('thereNoSuchSheet'));
    if (sequence > head.head)
      throw new Refusal('bad-request', refusalText('sheetHasHadHead', { head: head.head, sequence }));
    if (sequence < head.head && !(await hasLogAfter(tx, id, sequence)))
      throw new Refusal('bad-request', refusalText('historyBeginsLater'));
    const then = new Sheet(await readFields(tx, id), head.settings);
    await readRowsInBatches(tx, id, (rows) => void then.apply({ kind: 'insert-rows', rows }));
    then.parts.put(await readParts(tx, id));
    then.rules.put(await readRules(tx, id));
    let asOf = head.createdAt;
    for (let before = head.head + 1; before > 0;) {
      const changes = await readChangesBefore(tx, id, { before, limit: BATCH });
      for (const { sequence: at, inverse, at: madeAt } of changes) {
        if (at === sequence) asOf = madeAt;
        if (at > sequence) for (const operation of inverse) then.apply(operation);
      }
      const last = changes.at(-1)?.sequence ?? 0;
      before = last <= sequence ? 0 : last;
    }
    const { name, settings } = head;
    const packing = new SheetPacker({
      id,
      name,
      settings,
      sequence,
      asOf,
      fields: then.fields,
      rules: rulesOf(then),
      parts: [...then.parts.values()],
    });
    for (const [at, slot] of then.order.entries()) {
      // Others are answered meanwhile.
      if (at % ROWS_AT_ONCE === 0) await setImmediate();
      packing.add(then.storedRow(slot));
    }
    return packing;
  });
  return compress(packer.pack(), { level: 3 });
}
