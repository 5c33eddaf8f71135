import fc from 'fast-check';
import { beforeEach, describe, expect, test } from 'vitest';
import type { Change, Operation } from '../../src/core/sheet/change';
import { newField } from '../../src/core/sheet/field';
import { createSheet } from '../../src/server/sheets/create-sheet';
import { readPacked } from '../../src/server/sheets/read-packed';
import { readPast } from '../../src/server/sheets/read-past';
import { Refusal } from '../../src/server/refusal';
import type { Transaction } from '../../src/server/database';
import { commitComputed, takeChange } from '../../src/server/sheets/take-change';
import { takeTogether } from '../../src/server/sheets/take-together';
import { lockHead } from '../../src/server/sql/sheet';
import { insertRows } from '../../src/server/sql/row';
import { readChangesAfter } from '../../src/server/sql/change';
import { migrate } from '../../src/server/migrate';
import { seedDemo } from '../../src/demo/seed-demo';
import { unpackSheet } from '../../src/protocol/packed/packed-sheet';
import { gunzipSync } from 'node:zlib';
import { anyOperation, contentsOf, makeSheet } from '../support/arbitrary-sheet';
import { MIGRATIONS, testDatabase, TESTER } from '../support/test-database';
import { putRules, rulesPutBy } from '../../src/core/rules/shape/stored-rule';

const { sql } = await testDatabase('take_change');
let sheet = '';
let made = 0;

const rule = {
  id: 'r',
  name: 'R',
  on: true,
  settles: false,
  reads: { fields: ['a'] },
  when: { kind: 'compare' as const, is: '<' as const, to: 5 },
  paints: 'cell' as const,
};
const change = (...operations: Operation[]): Change => ({ id: `change ${++made}`, operations });
const take = (given: Change) => takeChange(sql, { sheet, by: TESTER, change: given });
const set = (row: string, input: string, at = 'a'): Operation => ({
  kind: 'set-cells',
  cells: [{ row, field: at, input }],
});
const stored = async () => {
  const bytes = gunzipSync(await readPacked(sql, sheet));
  return contentsOf(
    unpackSheet(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer).sheet,
  );
};

beforeEach(async () => {
  sheet = await createSheet(sql, {
    name: 'Test',
    fields: [newField('a', 'a0'), newField('b', 'a1')],
    rows: [
      { id: 'h', key: 'a0', role: 'header', cells: { a: 'A' } },
      { id: 'r1', key: 'a1', role: 'record', cells: { a: '5', b: 'x' } },
    ],
    rules: [],
  });
});

test('a change is applied, recorded with its inverse, and moves the head', async () => {
  expect(await take(change(set('r1', '4'), set('r1', '')))).toBe(1);
  expect(await take(change(set('r1', '7', 'b')))).toBe(2);
  expect((await stored()).rows[1]!.cells).toEqual({ b: '7' });
  const [log] = await sql`select inverse, author from sheet_change where sheet_id = ${sheet} and sequence = 1`;
  expect(log).toMatchObject({ author: 'test', inverse: [set('r1', '4'), set('r1', '5')] });
});

test('every operation can be taken back by what was recorded', async () => {
  const before = await stored();
  const operations: Operation[] = [
    set('r1', 'new'),
    { kind: 'insert-rows', rows: [{ id: 'r2', key: 'a05', role: 'record', cells: { b: '1' } }] },
    putRules([{ id: 'r', key: 'a0', rule }]),
    putRules([{ id: 'r', key: 'a1', rule: { ...rule, on: false } }]),
    { kind: 'set-styles', cells: [{ row: 'r1', field: 'b', style: { bold: true } }] },
    {
      kind: 'change-rows',
      rows: [
        { id: 'r1', key: 'a02' },
        { id: 'r2', key: 'a3' },
      ],
    },
    {
      kind: 'change-rows',
      rows: [
        { id: 'r1', key: 'a4' },
        { id: 'r1', key: 'a02' },
      ],
    },
    {
      kind: 'change-rows',
      rows: [{ id: 'r1', key: 'Zz', role: 'total', style: { fill: '#ffeecc' }, heightPx: 40, level: 1 }],
    },
    { kind: 'change-rows', rows: [{ id: 'r1', heightPx: null, level: 2 }] },
    {
      kind: 'put-fields',
      fields: [newField('c', 'a05'), newField('b', 'Zz', { hidden: true, style: { align: 'end' } })],
    },
    { kind: 'put-parts', parts: [{ id: 'm', kind: 'merge', top: 'h', bottom: 'r1', left: 'a', right: 'b' }] },
    { kind: 'remove-fields', fields: ['b'] },
    { kind: 'remove-parts', parts: ['m'] },
    { kind: 'remove-rows', rows: ['r1', 'r2'] },
    { kind: 'remove-rules', rules: ['r'] },
  ];
  for (const operation of operations) await take(change(operation));
  expect(await stored()).not.toEqual(before);
  const log = await sql<
    { inverse: Operation[] }[]
  >`select inverse from sheet_change where sheet_id = ${sheet} order by sequence desc`;
  for (const { inverse } of log) await take(change(...inverse));
  expect(await stored()).toEqual(before);
});

test('rows that are gone are not moved, and a sort that the database has no time for is refused in words', async () => {
  const moved: Operation = { kind: 'change-rows', rows: ['r1', 'gone'].map((id) => ({ id, key: 'a5' })) };
  await expect(take(change(moved))).rejects.toMatchObject({ code: 'row-gone' });
  expect((await stored()).rows[1]).toMatchObject({ id: 'r1', key: 'a1' });
  const ids = Array.from({ length: 50_000 }, (_, at) => `many-${at}`);
  await insertRows(
    sql,
    sheet,
    ids.map((id, at) => ({ id, key: `b${at}`, role: 'record', cells: {} })),
  );
  const sorted: Operation = { kind: 'change-rows', rows: ids.map((id, at) => ({ id, key: `c${at}` })) };
  const compute = async (tx: Transaction) => {
    await tx`set local statement_timeout = 20`;
    return [sorted];
  };
  await expect(commitComputed(sql, { sheet, by: TESTER, id: 'sorted', compute })).rejects.toMatchObject({
    code: 'too-long',
    message: expect.stringContaining('sort fewer records') as string,
  });
});

test('what goes along with a change gives way to what was entered meanwhile, and to rows that went', async () => {
  const along = (row: string, was: string): Operation => ({
    kind: 'set-cells',
    cells: [{ row, field: 'a', input: 'along', was }],
  });
  await take(change(set('r1', 'entered')));
  await take(change(along('r1', '5'), along('gone', '5'), set('r1', 'asked', 'b')));
  expect((await stored()).rows[1]!.cells).toEqual({ a: 'entered', b: 'asked' });
  const blank = (field: string): Operation => ({
    kind: 'set-cells',
    cells: [{ row: 'h', field, input: 'along', was: '' }],
  });
  await take(change(blank('b'), blank('gone')));
  expect((await stored()).rows[0]!.cells).toEqual({ a: 'A', b: 'along' });
  await take(change(along('r1', 'entered')));
  const [log] = await sql<
    { inverse: Operation[] }[]
  >`select inverse from sheet_change where sheet_id = ${sheet} order by sequence desc limit 1`;
  await take(change(set('r1', 'later')));
  await take(change(...log!.inverse));
  expect((await stored()).rows[1]!.cells.a).toBe('later');
});

test('the database and the sheet in memory come to the same, whatever is done', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(anyOperation, { minLength: 1, maxLength: 8 }), async (operations) => {
      const memory = makeSheet();
      const { fields, rows, rules } = contentsOf(memory);
      sheet = await createSheet(sql, { name: 'Twin', fields, rows, rules });
      for (const operation of operations) {
        const taken = await take(change(operation)).catch((error: unknown) => {
          if (!(error instanceof Refusal)) throw error;
        });
        if (taken !== undefined) memory.apply(operation);
      }
      expect(await stored()).toEqual(contentsOf(memory));
    }),
    { numRuns: 60 },
  );
});

test('changes taken together come to the same as their log one after another, whatever is refused among them', async () => {
  let refused = 0;
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.array(anyOperation, { minLength: 1, maxLength: 3 }), { maxLength: 12 }),
      async (sets) => {
        const memory = makeSheet();
        const { fields, rows, rules } = contentsOf(memory);
        sheet = await createSheet(sql, { name: 'Together', fields, rows, rules });
        const before = await stored();
        const changes = sets.map((operations) => change(...operations));
        const taken = await Promise.all(
          changes.map((made) =>
            take(made).catch((error: unknown) => {
              if (!(error instanceof Refusal)) throw error;
              return null;
            }),
          ),
        );
        refused += taken.filter((sequence) => sequence === null).length;
        const log = await readChangesAfter(sql, sheet, { after: 0, limit: 99 });
        expect(log.map(({ sequence, change: { id } }) => [id, sequence])).toEqual(
          changes.flatMap(({ id }, at) => (taken[at] === null ? [] : [[id, taken[at]]])),
        );
        for (const { change: made } of log) for (const operation of made.operations) memory.apply(operation);
        expect(await stored()).toEqual(contentsOf(memory));
        const inverses = await sql<{ inverse: Operation[] }[]>`
        select inverse from sheet_change where sheet_id = ${sheet} order by sequence desc`;
        for (const { inverse } of inverses) await take(change(...inverse));
        expect(await stored()).toEqual(before);
      },
    ),
    { numRuns: 60 },
  );
  expect(refused).toBeGreaterThan(3);
});

test('of many that come together and are mostly refused, each has its own answer', async () => {
  const answers = await Promise.all(
    Array.from({ length: 60 }, (_, at) =>
      take(change(set(at % 5 === 0 ? 'r1' : 'gone', String(at)))).catch((error: Refusal) => error.code),
    ),
  );
  expect(answers).toEqual(answers.map((_, at) => (at % 5 === 0 ? at / 5 + 1 : 'row-gone')));
  expect((await stored()).rows[1]!.cells.a).toBe('55');
});

describe('what this process knows of a sheet is not used', () => {
  const other = (...operations: Operation[]) =>
    takeTogether(sheet, [{ sql, by: TESTER, id: `other ${++made}`, operations }]);
  const cells = async () => (await stored()).rows[1]!.cells;

  test('where another process has changed it', async () => {
    await take(change(set('r1', '6')));
    await other(set('r1', 'theirs', 'b'));
    expect(await take(change(set('r1', '7')))).toBe(3);
    expect(await cells()).toEqual({ a: '7', b: 'theirs' });
    await other({ kind: 'remove-rows', rows: ['r1'] });
    await expect(take(change(set('r1', '8')))).rejects.toMatchObject({ code: 'row-gone' });
  });

  test('where its last change is another, as after a failure of the database', async () => {
    await take(change(set('r1', '6')));
    await sql`update sheet_change set change_id = 'never seen' where sheet_id = ${sheet}`;
    await sql`update sheet_row set cells = '{"a": "9", "b": "kept"}' where sheet_id = ${sheet} and id = 'r1'`;
    await take(change(set('r1', '7')));
    expect(await cells()).toEqual({ a: '7', b: 'kept' });
    const [log] = await sql`select inverse from sheet_change where sheet_id = ${sheet} and sequence = 2`;
    expect(log).toEqual({ inverse: [set('r1', '9')] });
  });

  test('while another has locked it: other sheets do not wait', async () => {
    const sheets = await Promise.all(
      ['Locked', 'Locked too', 'Locked as well', 'Free'].map((name) =>
        createSheet(sql, {
          name,
          fields: [newField('a', 'a0')],
          rows: [{ id: 'r1', key: 'a1', role: 'record', cells: {} }],
          rules: [],
        }),
      ),
    );
    const [free = '', ...locked] = sheets.reverse();
    const enter = (into: string) => takeChange(sql, { sheet: into, by: TESTER, change: change(set('r1', '7')) });
    await Promise.all(sheets.map(enter));
    let waiting: Promise<number>[] = [];
    await sql.begin(async (tx) => {
      for (const each of locked) await lockHead(tx, each);
      waiting = locked.map(enter);
      expect(await enter(free)).toBe(2);
      for (const each of locked) expect(await readChangesAfter(tx, each, { after: 1, limit: 9 })).toEqual([]);
    });
    expect(await Promise.all(waiting)).toEqual([2, 2, 2]);
  });
});

test('the same change sent twice, even at the same moment, is taken once', async () => {
  const once = change({ kind: 'insert-rows', rows: [{ id: 'r2', key: 'a2', role: 'record', cells: {} }] });
  expect(await Promise.all([take(once), take(once), take(once)])).toEqual([1, 1, 1]);
  expect((await stored()).rows).toHaveLength(3);
});

test('changes that arrive together get a sequence each, without gaps', async () => {
  const sequences = await Promise.all(Array.from({ length: 12 }, (_, at) => take(change(set('r1', String(at))))));
  expect(sequences.toSorted((a, b) => a - b)).toEqual(Array.from({ length: 12 }, (_, at) => at + 1));
  const log = await readChangesAfter(sql, sheet, { after: 4, limit: 3 });
  expect(log.map(({ sequence }) => sequence)).toEqual([5, 6, 7]);
});

test('the looks of a category keep their order, in the sheet and in the log', async () => {
  const looks = { wide: null, high: null, low: null, b: null };
  await take(change(putRules([{ id: 'r', key: 'a0', rule: { ...rule, when: { kind: 'category', looks } } }])));
  const [log] = await readChangesAfter(sql, sheet, { after: 0, limit: 1 });
  for (const rules of [(await stored()).rules, rulesPutBy(log!.change.operations[0]!)])
    expect(JSON.stringify(rules[0]!.rule.when)).toBe(JSON.stringify({ kind: 'category', looks }));
});

test('the past of a sheet is what its log takes back, from the newest change as far as so many cells go', async () => {
  for (const input of ['6', '7', '8']) await take(change(set('r1', input), putRules([{ id: 'r', key: 'a0', rule }])));
  const [made] = await sql`select created_at from sheet where id = ${sheet}`;
  const log = await sql`select made_at from sheet_change where sheet_id = ${sheet} order by sequence`;
  const before = ['5', '6', '7'].map((input, at) => ({
    sequence: at + 1,
    at: log[at]!.made_at.getTime(),
    inverse: [set('r1', input)],
  }));
  expect(await readPast(sql, sheet, { until: 3 })).toEqual({
    from: made!.created_at.getTime(),
    isWhole: true,
    changes: before,
  });
  expect(await readPast(sql, sheet, { until: 2 })).toMatchObject({ isWhole: true, changes: before.slice(0, 2) });
  expect(await readPast(sql, sheet, { until: 3, most: 2 })).toEqual({
    from: before[0]!.at,
    isWhole: false,
    changes: before.slice(1),
  });
  await expect(readPast(sql, 'gone', { until: 3 })).rejects.toMatchObject({ code: 'no-sheet' });
});

describe('what cannot be taken leaves nothing behind', () => {
  test.each([
    ['every field', 'bad-request', { kind: 'remove-fields' as const, fields: ['a', 'b'] }],
    ['a row that is gone', 'row-gone', set('gone', '1')],
    ['a field that is gone', 'field-gone', set('r1', '1', 'gone')],
    [
      'a row that is there',
      'row-exists',
      { kind: 'insert-rows', rows: [{ id: 'r1', key: 'a2', role: 'record', cells: {} }] } as Operation,
    ],
  ])('%s', async (_, code, operation) => {
    const before = await stored();
    const refused = await take(change(set('r1', 'half'), operation)).catch((error: unknown) => error);
    expect(refused).toBeInstanceOf(Refusal);
    expect((refused as Refusal).code).toBe(code);
    expect(await stored()).toEqual(before);
    expect(await readChangesAfter(sql, sheet, { after: 0, limit: 9 })).toEqual([]);
  });

  test('a sheet that does not exist', async () => {
    await expect(takeChange(sql, { sheet: 'gone', by: TESTER, change: change(set('r1', '1')) })).rejects.toMatchObject({
      code: 'no-sheet',
    });
  });
});

test('the schema is brought up to date once, and the demo is put in once', async () => {
  expect(await migrate(sql, MIGRATIONS)).toEqual([]);
  const now = new Date('2026-03-08T12:00:00Z');
  expect([await seedDemo(sql, now), await seedDemo(sql, now)]).toEqual([true, false]);
});
