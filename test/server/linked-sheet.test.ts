import { expect, test } from 'vitest';
import { Evaluation } from '../../src/core/rules/evaluate/evaluation';
import { profileRule as profileOfSheet, readValues } from '../../src/core/rules/explain/profile-rule';
import { kindOf } from '../../src/core/rules/kinds/registry';
import type { Rule } from '../../src/core/rules/shape/rule';
import { newField } from '../../src/core/sheet/field';
import { Sheet } from '../../src/core/sheet/sheet';
import { profileOfTable } from '../../src/engine/link/profile-of-table';
import type { LinkedJudgement } from '../../src/protocol/linked-table';
import { testDatabase, TESTER } from '../support/test-database';

const { sql, url } = await testDatabase('linked_sheet');
const source = await testDatabase('linked_source');
const at = new URL(source.url);
Object.assign(process.env, {
  DATABASE_URL: url,
  AUXESIS_LINKED: `${at.hostname}:${at.port}`,
  AUXESIS_SEAL_KEY: Buffer.alloc(32, 7).toString('base64'),
});
const { makeLinkedSheet } = await import('../../src/server/linked/make-linked-sheet');
const { findLinkedSheet } = await import('../../src/server/linked/linked-sheet');
const { packWindow } = await import('../../src/server/linked/open-window');
const { judgeRule, nextRow } = await import('../../src/server/linked/judge-rule');
const { profileRule } = await import('../../src/server/linked/profile-rule');
const { exportPainted } = await import('../../src/server/linked/export-painted');
const { requireLinkedHost } = await import('../../src/server/linked/linked-address');
const { takeChange } = await import('../../src/server/sheets/take-change');
const { unzipPacked } = await import('../../src/server/sheets/unzip-packed');
const { unpackSheet } = await import('../../src/protocol/packed/packed-sheet');
const { runStatement } = await import('../../src/linked/run-statement');
const { default: sqlOf } = await import('sql-template-tag');

const PASSWORD = 'a secret of the reader';
await sql`insert into person (id, email, name) values ('wren', 'wren@example.org', 'Wren')`;
await source.sql.unsafe(`
  drop role if exists linked_test_reader;
  create role linked_test_reader login password '${PASSWORD}';
  create table levels (station text, "day" date, level float8, at timestamptz, is_open boolean, primary key (station, "day"));
  insert into levels select 'Station ' || (i % 3), date '2026-01-01' + i, i % 50, timestamptz '2026-01-01 22:30+00', i % 2 = 0
    from generate_series(1, 2500) i;
  insert into levels values ('5', '2026-01-01', 'NaN', null, null), ('=1+1', '2026-01-01', null, null, null);
  create table loose (level int); create view seen as select * from levels;
  grant select on levels, loose, seen to linked_test_reader`);
const reader = source.url.replace(/\/\/[^@]*@/, `//linked_test_reader:${encodeURIComponent(PASSWORD)}@`);
const make = (address: string, table: string, key: readonly string[] = []) =>
  makeLinkedSheet('wren', { name: 'Levels', address, table, key });

test('a table is linked with a role that may only read, and its address rests sealed', async () => {
  await expect(make(source.url, 'levels')).rejects.toThrow('This role may change the table');
  await expect(make(reader, 'nowhere')).rejects.toThrow('There is no table or view "nowhere"');
  await expect(make(reader, 'loose')).rejects.toThrow('has no primary key');
  await expect(make(reader, 'seen', ['station', 'nothing'])).rejects.toThrow('There is no column "nothing"');
  await expect(make(`${reader}?host=db.example.org`, 'levels')).rejects.toThrow('parameters');
  const sheet = await make(reader, 'levels');
  const [kept] = await sql<
    { sealed: Buffer; host: string }[]
  >`select sealed, host from linked_table where sheet_id = ${sheet}`;
  expect(kept?.sealed.includes('secret') || kept?.sealed.includes('linked_test_reader')).toBe(false);
  expect(kept?.host).toBe(`${at.hostname}:${at.port}`);
  // Nothing is written over the connection, whatever the role may do.
  const linked = await findLinkedSheet(sheet);
  if (!linked) throw new Error('it is not linked');
  await expect(
    linked.ask((connection) => runStatement(connection, sqlOf`create temporary table mine (a int)`)),
  ).rejects.toThrow('read-only');
});

test('only databases that the setting lists are reached', () => {
  const allowed = { linked: ['db.example.org:5432'] };
  expect(requireLinkedHost('postgres://reader:x@db.example.org/water', allowed)).toBe('db.example.org:5432');
  for (const address of [
    'postgres://reader:x@db.example.org:5433/water',
    'postgres://reader:x@other.example.org/water',
    'postgres://reader:x@other.example.org,db.example.org:5432/water',
    'http://db.example.org:5432/water',
    'postgres:///water?host=db.example.org',
  ])
    expect(() => requireLinkedHost(address, allowed), address).toThrow(/./);
  expect(() => requireLinkedHost('postgres://reader:x@db.example.org/water', { linked: [] })).toThrow(
    'cannot be linked',
  );
});

test('its rows come by windows in the order of the key, as they would be typed, and no rows are put into it', async () => {
  const sheet = await make(reader, 'levels');
  const linked = await findLinkedSheet(sheet);
  if (!linked) throw new Error('it is not linked');
  const open = async (window: Parameters<typeof packWindow>[2]) =>
    unpackSheet(unzipPacked(await packWindow(sheet, linked, window)));
  const first = await open({});
  const { sheet: opened, head } = first;
  const inputs = (slot: number) => opened.fields.map((_, column) => opened.column(column).inputAt(slot));
  expect(opened.order.slice(0, 3).map(inputs)).toEqual([
    ['station', 'day', 'level', 'at', 'is_open'],
    ["'5", '2026-01-01', '#NUM!', '', ''],
    ["'=1+1", '2026-01-01', '', '', ''],
  ]);
  expect(inputs(opened.order[3] ?? -1)[3]).toBe('2026-01-01 22:30:00');
  expect(head.linked).toMatchObject({ hasBefore: false, hasAfter: true, first: ['5', '2026-01-01'] });
  // Forward to the end, and back: each row once.
  const seen: string[] = [];
  let there = head.linked;
  while (there) {
    const window = await open(there.window);
    seen.push(...window.sheet.order.slice(1).map((slot) => window.sheet.rowId(slot)));
    const after = window.head.linked;
    if (!after?.hasAfter || !after.last) {
      const back = await open({ before: after?.first ?? [] });
      expect(back.head.linked?.last).toEqual(JSON.parse(seen.at(-window.sheet.rowCount) ?? '[]'));
      break;
    }
    there = (await open({ after: after.last })).head.linked;
  }
  expect(seen).toHaveLength(2502);
  expect(new Set(seen).size).toBe(2502);
  const insert = { kind: 'insert-rows', rows: [{ id: 'mine', key: 'b', role: 'record', cells: {} }] } as const;
  await expect(takeChange(sql, { sheet, by: TESTER, change: { id: 'c1', operations: [insert] } })).rejects.toThrow(
    'only read here',
  );
});

test('a rule is counted over all records; one that needs all of them says what it comes to over these', async () => {
  const sheet = await make(reader, 'levels');
  const linked = await findLinkedSheet(sheet);
  if (!linked) throw new Error('it is not linked');
  const ruleOf = (when: Rule['when']): Rule => ({
    id: 'r',
    name: 'r',
    on: true,
    settles: false,
    reads: { fields: ['f3'] },
    when,
    paints: 'cell',
    look: { fill: '#aa0000' },
  });
  const judge = (when: Rule['when']): Promise<LinkedJudgement> => judgeRule(linked, { rule: ruleOf(when), window: {} });
  expect(await judge({ kind: 'compare', is: '<', to: 10 })).toEqual({ problem: null, read: 2502, matched: 500 });
  const high = await judge({ kind: 'average', is: 'above' });
  expect(high).toMatchObject({ problem: null, matched: 1250 });
  if (high.problem !== null) throw new Error(high.problem);
  expect(high.rows).toHaveLength(1000);
  expect(high.outcomes?.['f3']?.slice(0, 2)).toEqual([null, null]);
  expect(
    await judge({
      kind: 'scale',
      stops: [
        { at: 'least', color: '#000000' },
        { at: { percentile: 50 }, color: '#ffffff' },
      ],
    }),
  ).toMatchObject({
    when: { stops: [{ at: 0 }, { at: 24.5 }] },
  });
  expect(await judge({ kind: 'change', is: 'changed', within: { n: 1, unit: 'day' } })).toEqual({
    problem: 'cannot be asked of a database: what changed, as a linked table has no history',
  });

  // Where it matches next, row by row, as the database itself says it.
  const found: string[] = [];
  for (let key: readonly string[] | null = []; key;) {
    const after: { key: readonly string[] | null } = await nextRow(linked, {
      rule: ruleOf({ kind: 'compare', is: '=', to: 7 }),
      ...(key.length ? { after: key } : {}),
    });
    key = after.key;
    if (key) found.push(key.join(' '));
  }
  const rows = await source.sql<{ row: string }[]>`
    select station || ' ' || day as row from levels where level = 7 order by station, day`;
  expect(found).toEqual(rows.map(({ row }) => row));
  // Bands of which some have no look are passed over.
  const bands = ruleOf({ kind: 'bands', cuts: [49], looks: [null, { fill: '#bb0000' }] });
  const { key } = await nextRow(linked, { rule: bands });
  expect(
    await source.sql`select level from levels where station = ${key?.[0] ?? ''} and day = ${key?.[1] ?? ''}`,
  ).toEqual([{ level: 49 }]);
});

test('all records that rules paint are taken out as a table, by which rules', async () => {
  const sheet = await make(reader, 'levels');
  const linked = await findLinkedSheet(sheet);
  if (!linked) throw new Error('it is not linked');
  const rule = (id: string, when: Rule['when'], on = true): Rule => ({
    id,
    name: `Rule ${id}`,
    on,
    settles: false,
    reads: { fields: ['f3'] },
    when,
    paints: 'record',
    look: { fill: '#aa0000' },
  });
  const rules = [
    rule('low', { kind: 'compare', is: '<', to: 2 }),
    rule('first', { kind: 'rank', is: 'bottom', n: 1 }),
    rule('off', { kind: 'state', is: 'filled' }, false),
    rule('unsaid', { kind: 'change', is: 'changed', within: { n: 1, unit: 'day' } }),
  ];
  let text = '';
  for await (const piece of exportPainted(linked, rules)) text += Buffer.from(piece).toString();
  const [header, ...lines] = text.trimEnd().split('\r\n');
  expect(header).toBe('station,day,level,at,is_open,Painted by');
  expect(lines).toHaveLength(100);
  expect(lines.filter((line) => line.endsWith(',Rule low; Rule first'))).toHaveLength(50);
  expect(lines.filter((line) => line.endsWith(',Rule low'))).toHaveLength(50);
});

test('what the bench says of all values is what it says of them in a sheet', async () => {
  const id = await make(reader, 'levels');
  const linked = await findLinkedSheet(id);
  if (!linked) throw new Error('it is not linked');
  const rows = await source.sql<{ level: number | null; station: string }[]>`
    select level, station from levels order by station, day`;
  const held = new Sheet(['f1', 'f2', 'f3'].map((field, at) => newField(field, `a${at}`)));
  for (const [at, { level, station }] of rows.entries()) {
    const slot = held.appendRow({ id: `r${at}`, key: '', role: 'record' });
    held.column(0).set(slot, `'${station}`, false);
    held.column(2).set(slot, level === null ? '' : Number.isNaN(level) ? '#NUM!' : String(level), false);
  }
  const compared = async (reads: Rule['reads'], when: Rule['when']) => {
    const rule = {
      id: 'r',
      name: 'r',
      on: true,
      settles: false,
      reads,
      when,
      paints: 'cell',
      look: { fill: '#aa0000' },
    } as const;
    const evaluation = new Evaluation(held, {}, { now: 46_000 });
    evaluation.setRules([rule]);
    const thresholds = kindOf(when)
      .thresholds(when)
      .map(({ value }) => value);
    const here = profileOfSheet(evaluation, { rule: 'r', thresholds }, readValues(held, reads));
    const told = await profileRule(linked, { rule });
    if (!told) throw new Error('it cannot be asked');
    const { today: _, isOfAll: __, profile, ...there } = profileOfTable(told);
    const { mean, deviation, bins, ...facts } = profile;
    expect({ ...facts, ...there }).toEqual({
      ...here.profile,
      mean: undefined,
      deviation: undefined,
      bins: undefined,
      ...here,
      profile: undefined,
      today: undefined,
    });
    const digits = (value: number): string => value.toPrecision(10);
    expect([mean, deviation].map(digits)).toEqual([here.profile.mean, here.profile.deviation].map(digits));
    const full = (given: typeof bins) => given.map(({ outcomes, ...bin }) => ({ ...bin, matched: outcomes[0] ?? 0 }));
    expect(full(bins)).toEqual(full(here.profile.bins));
  };
  await compared({ fields: ['f3'] }, { kind: 'compare', is: 'between', to: [10, 20.5] });
  await compared({ fields: ['f1'] }, { kind: 'text', is: 'contains', any: ['1'] });
});
