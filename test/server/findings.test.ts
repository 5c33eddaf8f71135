import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import fc from 'fast-check';
import { expect, test, vi } from 'vitest';
import type { Rule } from '../../src/core/rules/shape/rule';
import type { Operation } from '../../src/core/sheet/change';
import { newField } from '../../src/core/sheet/field';
import { createSheet } from '../../src/server/sheets/create-sheet';
import { takeChange } from '../../src/server/sheets/take-change';
import { testDatabase, TESTER } from '../support/test-database';
import { putRules } from '../../src/core/rules/shape/stored-rule';

const { sql, url } = await testDatabase('findings');
// What hears of findings, at an address that the server may tell.
const heard: string[] = [];
const hearing = createServer((request, answer) => {
  request.on('data', (part: Buffer) => heard.push(part.toString()));
  request.on('end', () => answer.end());
});
await new Promise<void>((resolve) => hearing.listen(0, '127.0.0.1', resolve));
const hearingAt = `127.0.0.1:${(hearing.address() as AddressInfo).port}`;
// The hub takes the process's own pool.
Object.assign(process.env, { DATABASE_URL: url, AUXESIS_WEBHOOKS: hearingAt });
const { FindingsKeeper } = await import('../../src/server/findings/keeper');
const { SheetLeases } = await import('../../src/server/findings/sheet-leases');
const { readFollowedRules } = await import('../../src/server/sql/follow');
const { writeDigests } = await import('../../src/server/findings/digests');

await sql`insert into person (id, email, name) values ('wren', 'wren@example.org', 'Wren')`;
let made = 0;
const newSheet = (rules: readonly Rule[], values: readonly string[]) =>
  createSheet(sql, {
    name: 'Readings',
    owner: 'wren',
    fields: [newField('a', 'a0'), newField('b', 'a1')],
    rows: values.map((value, at) => ({
      id: `r${at}`,
      key: `a${String.fromCharCode(97 + at)}`,
      role: 'record',
      cells: { a: value, b: `Station ${at}` },
    })),
    rules: rules.map((rule, at) => ({ id: rule.id, key: `a${at}`, rule })),
  });
const take = (sheet: string, ...operations: Operation[]) =>
  takeChange(sql, { sheet, by: TESTER, change: { id: `f${++made}`, operations } });
const set = (row: string, input: string): Operation => ({ kind: 'set-cells', cells: [{ row, field: 'a', input }] });
const rule = (id: string, when: Rule['when'], rest: Partial<Rule> = {}): Rule => ({
  id,
  name: id,
  on: true,
  settles: false,
  reads: { fields: ['a'] },
  when,
  paints: 'cell',
  look: { fill: '#aa0000' },
  ...rest,
});
const low = rule('low', { kind: 'compare', is: '<', to: 5 });

interface FindingRow {
  readonly sequence: string;
  readonly row_id: string;
  readonly way: string;
  readonly before: string;
  readonly after: string;
}
const kept = (sheet: string) =>
  sql<
    FindingRow[]
  >`select sequence, row_id, way, before, after from finding where sheet_id = ${sheet} order by sequence, row_id`;

/**
 * The same worked out by PostgreSQL alone, from the log and what the sheet began with: below 5 and not so before, or
 * the other way round.
 */
const bySql = (sheet: string, begun: readonly string[]) => sql<FindingRow[]>`
  with entered as (
    select 0::bigint as sequence, 'r' || (at - 1) as row_id, value as input from unnest(${begun as string[]}::text[]) with ordinality as first (value, at)
    union all
    select distinct on (change.sequence, cell ->> 'row') change.sequence, cell ->> 'row', cell ->> 'input'
    from sheet_change change, json_array_elements(operations) with ordinality as steps (step, step_at),
      json_array_elements(step -> 'cells') with ordinality as cells (cell, cell_at)
    where sheet_id = ${sheet} and cell ->> 'field' = 'a'
    order by 1, 2, 3
  ), judged as (
    select *, coalesce(case when input ~ '^-?[0-9]+([.][0-9]+)?$' then input::numeric < 5 end, false) as is_low from entered
  ), steps as (
    select *, lag(is_low) over w as was_low, lag(input) over w as before from judged window w as (partition by row_id order by sequence)
  )
  select sequence, row_id, case when is_low then 'entered' else 'left' end as way, before, input as after
  from steps where sequence > 0 and is_low <> was_low order by sequence, row_id`;

test('findings are what an SQL query over the log gives, whoever keeps them and however often that begins anew', async () => {
  const values = ['5', '4.9', 'x', '', '7', '-5', '6'];
  const input = fc.constantFrom('5', '4.9', '4.90', '-3', 'x', '', '12', '0');
  const change = fc.uniqueArray(fc.record({ row: fc.integer({ min: 0, max: 6 }).map((at) => `r${at}`), input }), {
    minLength: 1,
    maxLength: 4,
    selector: ({ row }) => row,
  });
  await fc.assert(
    fc.asyncProperty(
      fc.array(change, { minLength: 1, maxLength: 25 }),
      fc.integer({ min: 0, max: 24 }),
      async (changes, stop) => {
        const sheet = await newSheet([low], values);
        // Two processes at once; one of them falls over on the way, and another takes its place.
        const keeper = () => new FindingsKeeper(sql, new SheetLeases(sql, 20));
        let keepers = [keeper(), keeper()];
        for (const [at, cells] of changes.entries()) {
          await take(sheet, {
            kind: 'set-cells',
            cells: cells.map(({ row, input: entered }) => ({ row, field: 'a', input: entered })),
          });
          if (at % 3 === 0) await Promise.all(keepers.map((keeper) => keeper.look(sheet)));
          if (at === stop) keepers = [keepers[1]!, keeper()];
        }
        // Any of them may have the lease at this moment: it ends before long.
        const look = async () => {
          await keepers[0]!.look(sheet);
          return [...(await kept(sheet))];
        };
        await expect.poll(look, { timeout: 10_000 }).toEqual([...(await bySql(sheet, values))]);
      },
    ),
    { numRuns: 12 },
  );
});

test('a quiet rule waits with its findings, also over a restart, and reports as of when they were due', async () => {
  const time = { n: 10, unit: 'minute' } as const;
  const sheet = await newSheet(
    [{ ...low, quiet: { hold: time, rearm: 6, every: { n: 1, unit: 'hour' } } }],
    ['9', '9'],
  );
  const begun = Date.now();
  const minutes = (date: Date): number => Math.round((date.getTime() - begun) / 60_000);
  const found = async () =>
    (
      await sql<{ row_id: string; way: string; at: Date }[]>`
      select row_id, way, at from finding where sheet_id = ${sheet} order by id`
    ).map(({ row_id, way, at }) => `${minutes(at)} ${row_id} ${way}`);
  const leases = new SheetLeases(sql, 60_000);
  vi.useFakeTimers({ toFake: ['Date'], now: begun });
  try {
    let keeper = new FindingsKeeper(sql, leases);
    const until = async (minute: number, ...operations: Operation[]) => {
      vi.setSystemTime(begun + minute * 60_000);
      for (const operation of operations) await take(sheet, operation);
      const last = await sql`select max(sequence) as last from sheet_change where sheet_id = ${sheet}`;
      if (operations.length)
        await sql`update sheet_change set made_at = ${new Date()} where sheet_id = ${sheet} and sequence > ${Number(last[0]!['last']) - operations.length}`;
      await keeper.look(sheet);
      await keeper.tick();
    };
    await until(0, set('r0', '4'), set('r1', '4'));
    await until(5, set('r1', '7'));
    expect(await found()).toEqual([]);
    // Another process takes over. The cell that stayed is reported as of ten minutes after it fell.
    keeper = new FindingsKeeper(sql, leases);
    await until(14);
    expect(await found()).toEqual(['10 r0 entered']);
    // Between the limits it is still in; beyond the second it has left, and comes back once the hour is over.
    await until(20, set('r0', '5.5'));
    keeper = new FindingsKeeper(sql, leases);
    await until(30, set('r0', '6'));
    await until(32, set('r0', '4'));
    await until(60);
    expect(await found()).toEqual(['10 r0 entered', '30 r0 left']);
    await until(75);
    expect(await found()).toEqual(['10 r0 entered', '30 r0 left', '70 r0 entered']);
  } finally {
    vi.useRealTimers();
  }
});

test('a sheet has one keeper at a time; another takes over where its lease has ended, and hears until when it lasts', async () => {
  const [sheet, own] = [await newSheet([low], ['9']), await newSheet([low], ['9'])];
  const [first, second] = [new SheetLeases(sql, 60_000), new SheetLeases(sql, 60_000)];
  const endOf = async (id: string): Promise<number> =>
    (await sql<{ ends_at: Date }[]>`select ends_at from sheet_lease where sheet_id = ${id}`)[0]!.ends_at.getTime();
  const end = (id: string) => sql`update sheet_lease set ends_at = clock_timestamp() where sheet_id = ${id}`;
  expect([await first.take(sheet), await second.take(sheet), await second.take(own)]).toEqual([true, false, true]);
  expect(second.theirsMs(sheet)).toBeGreaterThan(1000);
  expect(first.theirsMs(sheet)).toBe(0);
  // Two that ask at the same moment: one of them.
  const fresh = await newSheet([low], ['9']);
  expect((await Promise.all([first.take(fresh), second.take(fresh)])).filter(Boolean)).toHaveLength(1);
  // What is renewed lasts longer; what is not goes to who asks next.
  const before = await endOf(sheet);
  expect(await first.renew([sheet])).toEqual([]);
  expect(await endOf(sheet)).toBeGreaterThan(before);
  await end(own);
  expect([await second.take(sheet), await first.take(own)]).toEqual([false, true]);
  expect(await second.renew([own])).toEqual([own]);
  await end(sheet);
  expect(await second.take(sheet)).toBe(true);
  expect(await first.renew([sheet])).toEqual([sheet]);
});

test('an answer goes from one outcome to another, with who and how many; a rule changed by hand starts again', async () => {
  const key = rule(
    'key',
    { kind: 'key', expect: ['stonefly'], looks: { right: { look: 'clear' }, wrong: { look: 'alarm' } } },
    { look: undefined },
  );
  const sheet = await newSheet([key], ['', 'stonefly']);
  const keeper = new FindingsKeeper(sql);
  await take(sheet, set('r0', 'mayfly'));
  await take(sheet, set('r0', 'stonefly'));
  const mayfly: Rule = { ...key, when: { kind: 'key', expect: ['mayfly'], looks: { right: { look: 'clear' } } } };
  await take(sheet, putRules([{ id: 'key', key: 'a0', rule: mayfly }]));
  await take(sheet, { kind: 'remove-rows', rows: ['r1'] });
  await take(sheet, set('r0', 'mayfly'));
  await take(sheet, { kind: 'remove-rows', rows: ['r0'] });
  await keeper.look(sheet);
  const told =
    await sql`select way, outcome, record, label, before, after, painted, author from finding where sheet_id = ${sheet} order by id`;
  const by = { label: 'A', author: 'test' };
  expect([...told]).toEqual([
    { ...by, way: 'entered', outcome: 'wrong', record: 'Station 0', before: '', after: 'mayfly', painted: 2 },
    { ...by, way: 'left', outcome: 'wrong', record: 'Station 0', before: 'mayfly', after: 'stonefly', painted: 2 },
    { ...by, way: 'entered', outcome: 'right', record: 'Station 0', before: 'mayfly', after: 'stonefly', painted: 2 },
    { ...by, way: 'entered', outcome: 'right', record: 'Station 0', before: 'stonefly', after: 'mayfly', painted: 1 },
    { ...by, way: 'left', outcome: 'right', record: 'a deleted record', before: 'mayfly', after: '', painted: 0 },
  ]);
});

test('what is compared with others enters without being touched itself, and scales, which shade everything, find nothing', async () => {
  const above = rule('above', { kind: 'average', is: 'above' });
  const scale = rule('scale', {
    kind: 'scale',
    stops: [
      { at: 'least', color: '#ffffff' },
      { at: 'greatest', color: '#aa0000' },
    ],
  });
  const sheet = await newSheet([above, scale], ['1', '2', '6']);
  await take(sheet, set('r2', '1.5'));
  await new FindingsKeeper(sql).look(sheet);
  // The average goes from 3 to 1.5: 6 was above the one, 2 is above the other.
  expect([...(await kept(sheet))].map(({ row_id, way, before, after }) => [row_id, way, before, after])).toEqual([
    ['r1', 'entered', '2', '2'],
    ['r2', 'left', '6', '1.5'],
  ]);
  // Beside a rule with findings, one that may have some later can be followed already.
  await take(sheet, putRules([{ id: 'low', key: 'a2', rule: low }]));
  const followed = await readFollowedRules(sql, { person: 'wren', sheet });
  expect(followed.map(({ id, unseen, counts }) => [id, unseen, counts.length])).toEqual([
    ['above', 2, 1],
    ['low', 0, 0],
  ]);
  const everywhere = await readFollowedRules(sql, { person: 'wren' });
  expect(everywhere.flatMap((one) => (one.sheet === sheet ? one.id : []))).toEqual(['above']);
});

test('the clock crosses cells of a sheet that nobody uses, with nobody as its author', async () => {
  const due = rule('due', { kind: 'date', is: 'past' });
  const sheet = await newSheet([due], ['2026-03-08', '2999-01-01']);
  // Known up to the day before.
  await sql`update finding_head set at = '2026-03-08T12:00:00Z' where sheet_id = ${sheet}`;
  await new FindingsKeeper(sql).tick();
  const told = await sql`select way, row_id, sequence, author from finding where sheet_id = ${sheet}`;
  expect([...told]).toEqual([{ way: 'entered', row_id: 'r0', sequence: null, author: null }]);
});

test('important rules write at once, digests when they are due, and a local address hears of everything', async () => {
  const sheet = await newSheet([low], ['9', '8']);
  await sql`insert into important_rule (sheet_id, rule_id) values (${sheet}, 'low')`;
  await sql`insert into finding_hook (sheet_id, url) values (${sheet}, ${`http://${hearingAt}/`})`;
  await sql`insert into finding_follow (sheet_id, person_id, digest) values (${sheet}, 'wren', 'hour')`;
  await take(sheet, set('r0', '4'));
  await take(sheet, set('r0', '9'));
  await new FindingsKeeper(sql).look(sheet);
  await expect.poll(() => heard.join()).toContain('"way":"left"');
  expect(JSON.parse(heard[0]!)).toMatchObject({
    sheet,
    name: 'Readings',
    findings: [{ ruleName: 'low', way: 'entered', record: 'Station 0', before: '9', after: '4' }, {}],
  });
  const mails = () => sql`select recipient, subject, body from outbox_mail order by id`;
  const atOnce = {
    recipient: 'wren@example.org',
    subject: 'low: Readings',
    body: 'Station 0, A: entered low. It was 9, now 4.',
  };
  expect([...(await mails())]).toEqual([atOnce]);
  // Not due yet; then it is, once.
  expect(await writeDigests(sql)).toBe(0);
  await sql`update finding_follow set digest_at = now() - interval '61 minutes'`;
  expect([await writeDigests(sql), await writeDigests(sql)]).toEqual([1, 0]);
  expect((await mails())[1]).toMatchObject({
    body: 'Station 0, A: entered low. It was 9, now 4.\nStation 0, A: left low. It was 4, now 9.',
  });
  hearing.close();
});
