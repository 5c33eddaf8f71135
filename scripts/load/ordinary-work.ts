import { nanoid } from 'nanoid';
import { newField } from '../../src/core/sheet/field';
import { OWN_ALL } from '../../src/core/sharing/role';
import type { Operation } from '../../src/core/sheet/change';
import { findAccess } from '../../src/server/access/find-access';
import type { Sql } from '../../src/server/database';
import { createSheet } from '../../src/server/sheets/create-sheet';
import { historyOf } from '../../src/server/sheets/read-history';
import { readPacked } from '../../src/server/sheets/read-packed';
import { readPast } from '../../src/server/sheets/read-past';
import { packedAsOf } from '../../src/server/sheets/sheet-as-of';
import { takeChange } from '../../src/server/sheets/take-change';
import { readChangesAfter } from '../../src/server/sql/change';
import {
  findFindingHead,
  insertFindings,
  moveFindingHead,
  pageOfFindings,
  readAuthors,
  readFindings,
} from '../../src/server/sql/finding';
import { addNote, readFollowedRules, seeAll, seeOne } from '../../src/server/sql/follow';
import { renewLeases, takeLease } from '../../src/server/sql/lease';
import { findLeftOut } from '../../src/server/sql/left-out';
import { findSheet } from '../../src/server/sql/sheet';

const ROWS = 50;

/** Makes a person's sheet with a rule. */
export const makeOrdinarySheet = (sql: Sql, owner: string): Promise<string> =>
  createSheet(sql, {
    name: 'Ordinary',
    owner,
    fields: [newField('a', 'a0'), newField('b', 'a1')],
    rows: Array.from({ length: ROWS }, (_, at) => ({
      id: `r${at}`,
      key: `b${100 + at}`,
      role: 'record' as const,
      cells: { a: String(at), b: `Station ${at}` },
    })),
    rules: [
      {
        id: 'low',
        key: 'a0',
        rule: {
          id: 'low',
          name: 'Low',
          on: true,
          settles: false,
          reads: { fields: ['a'] },
          when: { kind: 'compare', is: '<', to: 5 },
          paints: 'cell',
          look: { fill: '#f7d3c8' },
        },
      },
    ],
  });

/** What people, pages and processes do with a sheet all day, once. */
export async function ordinaryWork(
  sql: Sql,
  { sheet, person, session }: { readonly sheet: string; readonly person: string; readonly session: string },
): Promise<void> {
  const by = { author: `person ${person}`, role: 'owner', own: OWN_ALL } as const;
  const take = (...operations: Operation[]) => takeChange(sql, { sheet, by, change: { id: nanoid(), operations } });
  const enter = (row: string, input: string) => take({ kind: 'set-cells', cells: [{ row, field: 'a', input }] });
  const row = `x${nanoid(6)}`;
  await findAccess(sql, sheet, { session, visit: undefined });
  await enter('r1', '3');
  await enter('r2', '8');
  await take({ kind: 'insert-rows', rows: [{ id: row, key: `c${row}`, role: 'record', cells: { a: '4' } }] });
  await take({ kind: 'remove-rows', rows: [row] });
  await findSheet(sql, sheet);
  await findLeftOut(sql, sheet);
  await readPacked(sql, sheet);
  const changes = await readChangesAfter(sql, sheet, { after: 0, limit: 100 });
  const last = changes.at(-1)?.sequence ?? 0;
  await historyOf(sql, sheet, {});
  await historyOf(sql, sheet, { field: 'a', row: 'r1' });
  await readPast(sql, sheet, { until: last });
  await packedAsOf(sql, sheet, last - 1);
  await takeLease(sql, sheet, { owner: 'me', forMs: 3000 });
  await renewLeases(sql, [sheet], { owner: 'me', forMs: 3000 });
  const head = (await findFindingHead(sql, sheet))!;
  await readAuthors(sql, sheet, { after: head.sequence, to: last });
  await moveFindingHead(sql, sheet, { from: head, to: last, at: Date.now() });
  await insertFindings(sql, sheet, [
    {
      rule: 'low',
      ruleName: 'Low',
      outcome: '',
      way: 'entered',
      row: 'r1',
      field: 'a',
      record: 'Station 1',
      label: 'A',
      before: '1',
      after: '3',
      painted: 6,
      sequence: last,
      author: `person ${person}`,
      at: Date.now(),
    },
  ]);
  const [found] = await pageOfFindings(sql, sheet, { limit: 100 });
  await readFindings(sql, { person, sheet });
  await readFollowedRules(sql, { person, sheet });
  await seeOne(sql, { sheet, person }, found!.id);
  await addNote(sql, sheet, { finding: found!.id, author: 'Mara', text: 'seen' });
  await seeAll(sql, { sheet, person }, undefined);
}
