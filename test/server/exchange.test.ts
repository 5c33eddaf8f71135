import { Readable } from 'node:stream';
import { gunzipSync, gzipSync } from 'node:zlib';
import { generateNKeysBetween } from 'fractional-indexing';
import { nanoid } from 'nanoid';
import { describe, expect, test } from 'vitest';
import { endLine, headLine, rowLine } from '../../src/core/exchange/archive/archive-lines';
import { newField } from '../../src/core/sheet/field';
import { shownAt } from '../../src/core/sheet/shown-cell';
import { Evaluation } from '../../src/core/rules/evaluate/evaluation';
import type { Look } from '../../src/core/looks/look';
import { KINDS, type When } from '../../src/core/rules/kinds/registry';
import { OWN_ALL } from '../../src/core/sharing/role';
import type { Operation } from '../../src/core/sheet/change';
import { volunteerHours } from '../../src/demo/volunteer-hours';
import { archiveSheet } from '../../src/server/sheets/archive-sheet';
import { bringInSheet } from '../../src/server/sheets/bring-in-sheet';
import { createSheet, emptySheet } from '../../src/server/sheets/create-sheet';
import { historyOf } from '../../src/server/sheets/read-history';
import { readPacked } from '../../src/server/sheets/read-packed';
import { packedAsOf } from '../../src/server/sheets/sheet-as-of';
import { takeChange } from '../../src/server/sheets/take-change';
import { unzipPacked } from '../../src/server/sheets/unzip-packed';
import { giveToken } from '../../src/server/programs/give-token';
import { upsertRecords } from '../../src/server/programs/upsert-records';
import { hashToken } from '../../src/server/people/token';
import { findProgram, type FoundProgram } from '../../src/server/sql/program';
import { unpackSheet } from '../../src/protocol/packed/packed-sheet';
import type { UpsertBody } from '../../src/protocol/programs/endpoints';
import { testDatabase } from '../support/test-database';

const { sql } = await testDatabase('exchange');
const owner = nanoid();
await sql`insert into person (id, email, name) values (${owner}, ${`${owner}@example.org`}, 'Mara Quillfeather')`;

const by = () => ({ author: `person ${owner}`, role: 'owner' as const, own: OWN_ALL });
const change = (sheet: string, ...operations: readonly Operation[]) =>
  takeChange(sql, { sheet, by: by(), change: { id: nanoid(), operations } });

async function bytesOf(id: string): Promise<Buffer> {
  const { packed } = await archiveSheet(sql, id);
  return Buffer.concat(await packed.toArray());
}

/** A look with every property. */
const FULL: Look = {
  fill: { color: '#f2e3b3', opacity: 0.5 },
  text: '#20304a',
  bold: true,
  italic: true,
  underline: true,
  strike: true,
  number: '0.00',
  border: { around: { style: 'dashed', width: 2, color: '#806040' } },
  icon: { set: 'arrows4', index: 1 },
  bar: { start: 0, end: 0.5, axis: null, color: '#5b7fa6', style: 'gradient' },
  hideValue: true,
};

/** Everything of a sheet but what it is called by. */
const stateOf = (packed: Uint8Array) => {
  const { sheet, head } = unpackSheet(unzipPacked(packed));
  const { id: _, asOf: __, ...rest } = head;
  return { ...rest, rows: sheet.order.map((slot) => sheet.storedRow(slot)) };
};

describe('an archive', () => {
  test.each([
    ['packs a large sheet while it comes in', (rows: readonly string[]) => rows, 1],
    [
      'leaves that to who opens it first where rows are in another order',
      (rows: readonly string[]) => rows.toReversed(),
      0,
    ],
  ])('%s', async (_, order, kept) => {
    const keys = generateNKeysBetween(null, null, 2200);
    const cells = (at: number) => ({ station: `Station ${at % 11}`, ph: String(at / 100) });
    const lines = [
      headLine({ name: 'Large', fields: [newField('station', 'a0'), newField('ph', 'a1')], rules: [] }),
      ...order(keys.map((key, at) => rowLine({ id: `r${at}`, key, role: 'record', cells: cells(at) }))),
      endLine({ rows: keys.length, changes: 0 }),
    ];
    const id = await bringInSheet(sql, Readable.from([gzipSync(lines.join(''))]), owner);
    const [{ count } = { count: '' }] = await sql`select count(*) from packed_sheet where sheet_id = ${id}`;
    expect(Number(count)).toBe(kept);
    const first = stateOf(await readPacked(sql, id));
    expect(first.rows[2199]).toEqual({ id: 'r2199', key: keys[2199], role: 'record', cells: cells(2199) });
    await sql`delete from packed_sheet where sheet_id = ${id}`;
    expect(stateOf(await readPacked(sql, id))).toEqual(first);
  });

  test('makes the same sheet again, and every moment of its history', async () => {
    const { id: _, ...contents } = volunteerHours();
    // With a rule of every kind over its first field.
    const kinds = Object.values(KINDS).map(({ examples }, at) => {
      const { when } = (examples as readonly { readonly when: When }[])[0]!;
      const rule = {
        id: `kind-${at}`,
        name: when.kind,
        on: true,
        settles: false,
        reads: { fields: [contents.fields[0]!.id] },
        when,
        paints: 'cell' as const,
        look: FULL,
      };
      return { id: rule.id, key: `z${at + 10}`, rule };
    });
    const id = await createSheet(sql, { ...contents, rules: [...contents.rules, ...kinds], owner });
    const { fields, rows } = stateOf(await readPacked(sql, id));
    const cell = (row: number, input: string): Operation => ({
      kind: 'set-cells',
      cells: [{ row: rows[row]!.id, field: fields[0]!.id, input }],
    });
    await change(id, cell(3, 'entered'));
    await change(
      id,
      { kind: 'remove-rows', rows: [rows[5]!.id] },
      { kind: 'put-parts', parts: [{ id: 'snapshot then', kind: 'snapshot', name: 'then', sequence: 1 }] },
    );
    await change(id, cell(3, 'entered again'), {
      kind: 'change-rows',
      rows: [{ id: rows[2]!.id, heightPx: 50, style: { fill: '#e8e0d0' } }],
    });
    const archive = await bytesOf(id);
    const again = await bringInSheet(sql, Readable.from([archive]), owner);
    expect(stateOf(await readPacked(sql, again))).toEqual(stateOf(await readPacked(sql, id)));
    for (const sequence of [0, 1, 2, 3])
      expect(stateOf(await packedAsOf(sql, again, sequence))).toEqual(stateOf(await packedAsOf(sql, id, sequence)));
    const told = (sheet: string) =>
      historyOf(sql, sheet, {}).then((entries) =>
        entries.map(({ at, says, names, cells }) => ({ at, says, names, cells })),
      );
    expect(await told(again)).toEqual(await told(id));
    // The author of a change is named, and that the archive says so.
    expect((await historyOf(sql, again, {}))[0]!.author).toBe('Mara Quillfeather');
    expect(
      gunzipSync(await bytesOf(again))
        .toString()
        .split('\n')
        .slice(1),
    ).toEqual(gunzipSync(archive).toString().split('\n').slice(1));
  });

  const line = (value: object) => `${JSON.stringify(value)}\n`;
  const head = {
    format: 'auxesis-archive',
    version: 1,
    name: 'Bad',
    fields: [{ id: 'f1', key: 'a0', widthPx: 100, format: null, unit: null }],
    rules: [],
  };
  const row = { id: 'r1', key: 'a0', role: 'record', cells: { f1: 'x' } };
  test.each([
    ['no end', line(head) + line({ row }), 'cut off'],
    ['a row too few', line(head) + line({ row }) + line({ end: { rows: 2, changes: 0 } }), 'missing'],
    [
      'two rows of one id',
      line(head) + line({ row }) + line({ row: { ...row, key: 'a1' } }) + line({ end: { rows: 2, changes: 0 } }),
      'same id',
    ],
    ['no JSON', 'hello\n', 'line 1'],
    ['another format', line({ ...head, format: 'other' }), 'format'],
    ['a cell that is no text', line(head) + line({ row: { ...row, cells: { f1: 5 } } }), 'line 2'],
    [
      'a rule that is none',
      line({ ...head, rules: [{ id: 'a', key: 'a0', rule: { id: 'a', when: { kind: 'odd' } } }] }),
      'line 1',
    ],
    ['a line without end', 'x'.repeat(21_000_000), 'more than 20,000,000 characters'],
    ['more after the end', line(head) + line({ end: { rows: 0, changes: 0 } }) + line({ row }), 'after the last line'],
  ])('with %s is refused, and leaves nothing behind', async (_, text, words) => {
    const count = async () => (await sql`select count(*) from sheet`)[0]!.count as string;
    const before = await count();
    await expect(bringInSheet(sql, Readable.from([gzipSync(text)]), owner)).rejects.toThrow(words);
    expect(await count()).toBe(before);
  });

  test('that stops on the way leaves nothing behind', async () => {
    const whole = gzipSync(
      line(head) +
        Array.from({ length: 30_000 }, (_, at) =>
          line({ row: { ...row, id: `r${at}`, key: `a${at}`, cells: { f1: nanoid(50) } } }),
        ).join(''),
    );
    const before = (await sql`select count(*) from sheet`)[0]!.count as string;
    const broken = Readable.from(
      (async function* () {
        yield whole.subarray(0, whole.length / 2);
        await Promise.resolve();
        throw new Error('the browser went away');
      })(),
    );
    await expect(bringInSheet(sql, broken, owner)).rejects.toThrow();
    expect((await sql`select count(*) from sheet`)[0]!.count).toBe(before);
  });
});

/** A program that may enter records into a sheet. */
async function programOf(sheet: string): Promise<FoundProgram> {
  const { token } = await giveToken(sql, sheet, { name: 'Field office', scopes: ['write'], person: owner, days: 30 });
  return (await findProgram(sql, hashToken(token)))!;
}

describe('records that programs enter', () => {
  test('meet by their key, are added else, and are taken once under one key', async () => {
    const { id: _, ...contents } = volunteerHours();
    const sheet = await createSheet(sql, {
      ...contents,
      fields: contents.fields.slice(0, 3),
      rows: contents.rows.slice(0, 1),
      rules: [],
      parts: [],
      owner,
    });
    const labels = Object.values(contents.rows[0]!.cells).slice(0, 3);
    const program = await programOf(sheet);
    const [one, two] = labels as [string, string];
    const enter = (records: readonly Record<string, string | number | null>[], idempotencyKey?: string) =>
      upsertRecords(sql, { program, body: { key: one, records }, idempotencyKey });
    expect(
      await enter([
        { [one]: 'A', [two]: 1 },
        { [one]: 'B', [two]: '=1+1' },
      ]),
    ).toEqual({ sequence: 1, inserted: 2, updated: 0, unchanged: 0 });
    expect(await enter([{ [one]: ' a ', [two]: 2 }, { [one]: 'B' }, { [one]: 'C' }], 'k1')).toMatchObject({
      inserted: 1,
      updated: 1,
      unchanged: 1,
    });
    expect(await enter([{ [one]: ' a ', [two]: 2 }, { [one]: 'B' }, { [one]: 'C' }], 'k1')).toMatchObject({
      sequence: 2,
      inserted: 1,
      updated: 1,
      unchanged: 1,
    });
    await expect(enter([{ [one]: 'D' }], 'k1')).rejects.toThrow('another request');
    await expect(enter([{ [one]: 'D' }, { Oddity: 1 }])).rejects.toThrow('records[1]: there is no field "Oddity"');
    await expect(enter([{ [two]: 1 }])).rejects.toThrow('records[0] has no value in its key fields');
    const { rows } = stateOf(await readPacked(sql, sheet));
    // Nothing that a program sends becomes a formula, and what meets stays as it was typed.
    expect(rows.slice(1).map(({ cells }) => Object.values(cells))).toEqual([['A', '2'], ['B', "'=1+1"], ['C']]);
    expect((await historyOf(sql, sheet, {}))[0]!.author).toBe('Field office');
  });

  test('are taken once where the same request comes several times at once', async () => {
    const { id: _, ...contents } = volunteerHours();
    const sheet = await createSheet(sql, { ...contents, rows: contents.rows.slice(0, 1), rules: [], parts: [], owner });
    const label = Object.values(contents.rows[0]!.cells)[0]!;
    const program = await programOf(sheet);
    // Without key fields each of them would add a record.
    const enter = () =>
      upsertRecords(sql, { program, body: { records: [{ [label]: 'once' }] }, idempotencyKey: 'again' });
    const answers = await Promise.all(Array.from({ length: 12 }, enter));
    expect(new Set(answers.map((answer) => JSON.stringify(answer))).size).toBe(1);
    expect(stateOf(await readPacked(sql, sheet)).rows).toHaveLength(2);
  });

  test('lose nothing where several enter at once', async () => {
    const { id: _, ...contents } = volunteerHours();
    const sheet = await createSheet(sql, { ...contents, rows: contents.rows.slice(0, 1), rules: [], parts: [], owner });
    const label = Object.values(contents.rows[0]!.cells)[0]!;
    const program = await programOf(sheet);
    const answers = await Promise.all(
      Array.from({ length: 30 }, (_, at) =>
        upsertRecords(sql, {
          program,
          body: { key: label, records: [{ [label]: `n${at % 10}` }, { [label]: `m${at}` }] },
        }),
      ),
    );
    const inserted = answers.reduce((sum, answer) => sum + answer.inserted, 0);
    expect(inserted).toBe(40);
    expect(stateOf(await readPacked(sql, sheet)).rows).toHaveLength(41);
  });

  test('give a blank sheet its labels, in the order in which they come, and more fields where it has too few', async () => {
    const sheet = await createSheet(sql, { ...emptySheet('Blank'), owner });
    const program = await programOf(sheet);
    const many = Object.fromEntries(Array.from({ length: 14 }, (_, at) => [`Reading ${at}`, at]));
    const body: UpsertBody = {
      key: 'Station',
      records: [
        { Station: 'Alder Weir', ...many },
        { station: 'Birch Ford', Note: 'new' },
      ],
    };
    expect(await upsertRecords(sql, { program, body })).toMatchObject({ inserted: 2 });
    const { fields, rows } = stateOf(await readPacked(sql, sheet));
    expect(fields.map(({ id }) => rows[0]!.cells[id])).toEqual(['Station', ...Object.keys(many), 'Note']);
    expect(
      rows.slice(1, 3).map(({ cells }) => [cells[fields[0]!.id], cells[fields[14]!.id], cells[fields[15]!.id]]),
    ).toEqual([
      ['Alder Weir', '13', undefined],
      ['Birch Ford', undefined, 'new'],
    ]);
    await expect(upsertRecords(sql, { program, body: { records: [{ Later: 1 }] } })).rejects.toThrow(
      'no field "Later"',
    );
  });

  test('bring a row of totals, under which nothing is added later', async () => {
    const sheet = await createSheet(sql, { ...emptySheet('Totals'), owner });
    const program = await programOf(sheet);
    const push = (records: UpsertBody['records']) =>
      upsertRecords(sql, { program, body: { key: 'Station', records, totals: { Depth: 'sum', Share: 'average' } } });
    await push([
      { Station: 'Alder Weir', Depth: 1, Share: '10%' },
      { Station: 'Birch Ford', Depth: 2, Share: '30%' },
    ]);
    const { sequence } = await push([{ Station: 'Cedar Sluice', Depth: 4, Share: '5%' }]);
    const { sheet: made } = unpackSheet(unzipPacked(await readPacked(sql, sheet)));
    new Evaluation(made, {});
    expect(made.order.map((slot) => made.roleAt(slot))).toEqual(['header', 'record', 'record', 'record', 'total']);
    expect([0, 1, 2].map((column) => shownAt(made, column, made.order.at(-1)!))).toEqual(['Total', '7', '15%']);
    // Totals that are there already are no change.
    expect((await push([{ Station: 'Cedar Sluice', Depth: 4 }])).sequence).toBe(sequence);
    await expect(
      upsertRecords(sql, { program, body: { records: [{ Station: 'Dipper' }], totals: { Width: 'sum' } } }),
    ).rejects.toThrow('totals: there is no field "Width"');
  });
});
