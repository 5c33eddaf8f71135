import fc from 'fast-check';
import type { Sql } from 'sql-template-tag';
import { expect, test } from 'vitest';
import { Evaluation } from '../../src/core/rules/evaluate/evaluation';
import type { RunningRule } from '../../src/core/rules/evaluate/running-rule';
import { KIND_NAMES } from '../../src/core/rules/kinds/registry';
import type { Rule } from '../../src/core/rules/shape/rule';
import { linkedColumn, type LinkedColumn, type LinkedTable } from '../../src/core/rules/sql/linked-table';
import { literalStatement } from '../../src/core/rules/sql/literal-statement';
import { LinkedRules } from '../../src/core/rules/sql/rules-as-sql';
import { newField } from '../../src/core/sheet/field';
import { Sheet } from '../../src/core/sheet/sheet';
import { anyRule } from '../support/arbitrary-sheet';
import { testDatabase } from '../support/test-database';

// The same rules over the same table: in the core, and as SQL in PostgreSQL. Every cell must have the same outcome.

const { sql } = await testDatabase('linked_rules');
const ZONE = 'Pacific/Auckland';
/** 9 March 2026, half past ten. */
const NOW = 46_090.4375;

const number = fc.oneof(
  fc.constantFrom('5', '5', '-5', '4.9', '5.1', '7', '0', '0.1', '0.2', '0.3', '1000', '0.7'),
  fc
    .double({ noNaN: true, min: -1e9, max: 1e9 })
    .filter((value) => value === 0 || Math.abs(value) > 1e-9)
    .map(String),
);
const text = fc.oneof(
  fc.constantFrom('x', 'X ', 'done', ' Done', '5', '', '   ', 'Straße', 'STRASSE', 'e\u0301', 'é', 'E', 'ı', 'I', 'İ'),
  fc.constantFrom('ΟΔΟΣ', 'οδος', 'a\tb', 'a b', 'A\u00a0 B', 'ſ', 'ﬁn', 'FIN', "it's", '"q"', '\u0301', 'Ǆ', 'ᾳ'),
  fc.string({ unit: 'grapheme', maxLength: 5 }).filter((given) => !given.includes('\0') && given.isWellFormed()),
);
const day = fc.constantFrom(
  '2026-03-08',
  '2026-03-08',
  '2026-03-09',
  '2026-03-10',
  '2026-02-28',
  '1999-12-31',
  '2030-01-01',
);
const moment = fc
  .tuple(day, fc.constantFrom('00:00:00', '10:30:00', '14:30:05', '23:59:59'))
  .map((parts) => parts.join(' '));

/** By the type of a column in PostgreSQL: its values as they are written, and as a sheet has them typed. */
const TYPES = {
  float8: { value: number, typed: (value: string) => (value === 'NaN' ? '#NUM!' : value) },
  numeric: { value: fc.constantFrom('5', '4.90', '0.1', '0.2', '0.3', '-5', '7', '12.345'), typed: String },
  int4: { value: fc.integer({ min: -9, max: 9 }).map(String), typed: String },
  text: { value: text, typed: (value: string) => `'${value}` },
  bool: { value: fc.constantFrom('true', 'false'), typed: (value: string) => value.toUpperCase() },
  date: { value: day, typed: String },
  timestamp: { value: moment, typed: String },
  timestamptz: { value: moment, typed: String },
} as const;
type TypeName = keyof typeof TYPES;

const FIELDS = ['f1', 'f2', 'f3'] as const;
const ROWS = 12;

interface Given {
  readonly types: readonly TypeName[];
  /** By row and column; null for NULL. */
  readonly rows: readonly (readonly (string | null)[])[];
  readonly rules: readonly Rule[];
}

/** Conditions that the rules of all kinds leave out. */
const moreWhens = fc.constantFrom<Rule['when'][]>(
  { kind: 'compare', is: 'between', to: ['strasse', 'E'] },
  { kind: 'compare', is: 'outside', to: [{ field: 'f1' }, 6] },
  { kind: 'compare', is: '<=', to: { field: 'f3', times: 1.1, plus: -0.5 } },
  { kind: 'compare', is: '=', to: { field: 'f2' }, magnitude: true },
  { kind: 'compare', is: '>', to: '2026-03-08 10:30' },
  { kind: 'text', is: 'contains', any: ['É', 'ss'], accents: true },
  { kind: 'text', is: 'differs', any: ['FIN', 'a b'] },
  { kind: 'text', is: 'ends', any: [{ field: 'f1' }, 's'], case: true },
  { kind: 'date', is: 'between', to: ['2026-03-10', '2026-03-08'] },
  { kind: 'date', is: { last: 2, unit: 'month' } },
  { kind: 'average', is: 'above', deviations: 1, spread: 'population' },
  { kind: 'average', is: 'at-or-below', deviations: 0.25, per: { group: 'f2' } },
  { kind: 'rank', is: 'top', percent: 25, per: { group: 'f3' } },
  { kind: 'repeat', is: 'again', by: ['f1', 'f3'], accents: true },
  {
    kind: 'bands',
    cuts: [-1, 0.2, 5],
    magnitude: true,
    edge: ['lower', 'upper', 'lower'],
    looks: [null, null, null, null],
  },
  {
    kind: 'icons',
    set: 'arrows4',
    cuts: [{ at: { percentile: 10 }, edge: '>' }, { at: { percent: 33 } }, { at: 'greatest' }],
  },
  { kind: 'formula', formula: '=A2*2>B2+1' },
  { kind: 'formula', formula: '=AND(A2>=5;NOT($B2="X"))' },
  { kind: 'formula', formula: '=OR(f1=f3;ISBLANK(f2);ABS(A2)<0.25)' },
  { kind: 'formula', formula: '=IF(ISNUMBER(A2);A2>5;B2>"d")' },
  { kind: 'formula', formula: '=IF(C2;A2/B2;-A2)' },
  { kind: 'formula', formula: '=A2<>TRUE' },
  { kind: 'formula', formula: '=$C2<="Straße"' },
  { kind: 'formula', formula: '=ISERROR(A2/B2)' },
  { kind: 'formula', formula: '=50%*C2-A2%' },
  { kind: 'key', expect: ['done', 5, true, '2026-03-08'], looks: { right: { fill: '#00aa00' } } },
);
const anyLinkedRule = fc.oneof(
  { weight: 2, arbitrary: anyRule },
  fc
    .record({ when: moreWhens, fields: fc.subarray([...FIELDS], { minLength: 1 }), base: anyRule })
    .map(({ when, fields, base }): Rule => ({ ...base, when, reads: { fields } })),
);

const anyGiven: fc.Arbitrary<Given> = fc
  .tuple(...FIELDS.map(() => fc.constantFrom(...(Object.keys(TYPES) as TypeName[]))))
  .chain((types) => {
    const cells = types.map((type) => fc.option(TYPES[type].value, { freq: 6 }));
    return fc.record({
      types: fc.constant(types),
      rows: fc.array(fc.tuple(...cells), { maxLength: ROWS }),
      rules: fc.array(anyLinkedRule, { minLength: 3, maxLength: 6 }),
    });
  });

const quoted = (value: string | null): string => (value === null ? 'null' : `'${value.replaceAll("'", "''")}'`);

async function made({ types, rows }: Given): Promise<LinkedTable> {
  const columns = types.map((type, at) => `f${at + 1} ${type}`).join(', ');
  const values = rows.map(
    (cells, at) =>
      `(${at}, ${cells.map((value, column) => `${quoted(value)}::${types[column] === 'timestamptz' ? `timestamp at time zone '${ZONE}'` : types[column]}`).join(', ')})`,
  );
  const insert = values.length ? `insert into linked values ${values.join(', ')};` : '';
  await sql.unsafe(`drop table if exists linked; create table linked (id int primary key, ${columns}); ${insert}`);
  const linked = [...types.map((type, at) => [`f${at + 1}`, type] as const), ['id', 'int4'] as const]
    .map(([name, type]) => linkedColumn(name, type))
    .filter((column): column is LinkedColumn => column !== undefined);
  return { name: ['linked'], columns: linked, key: ['id'] };
}

function sheetOf({ types, rows }: Given): Sheet {
  const made = new Sheet([...FIELDS, 'id'].map((id, at) => newField(id, `a${at}`)));
  const header = made.appendRow({ id: 'header', key: '', role: 'header' });
  for (const [column, id] of [...FIELDS, 'id'].entries()) made.column(column).set(header, id, true);
  for (const [at, cells] of rows.entries()) {
    const slot = made.appendRow({ id: `r${at}`, key: '', role: 'record' });
    made.column(FIELDS.length).set(slot, String(at), false);
    cells.forEach((value, column) => {
      const type = types[column];
      if (type) made.column(column).set(slot, value === null ? '' : TYPES[type].typed(value), false);
    });
  }
  return made;
}

const run = (statement: Sql): Promise<readonly Record<string, unknown>[]> =>
  sql.unsafe(statement.text, statement.values as never[]);

function inCore(running: RunningRule, sheet: Sheet, field: string): number[] {
  const column = sheet.findColumn(field) ?? -1;
  return sheet.order.slice(1).map((slot) => (running.works ? running.outcomeAt(column, slot) : -1));
}

/** By kind: cells with an outcome, or how often it was not said. */
const found = new Map<string, number>();
const count = (kind: string, cells: number) => found.set(kind, (found.get(kind) ?? 0) + cells);

test('every cell of random tables has the same outcome in SQL as in the core', async () => {
  await fc.assert(
    fc.asyncProperty(anyGiven, async (given) => {
      const rules = given.rules.map((rule, at) => ({ ...rule, id: `rule ${at}`, on: true }));
      const table = await made(given);
      const linked = new LinkedRules(table, rules, { now: NOW, zone: ZONE, firstWeekday: 0 });
      const sheet = sheetOf(given);
      const evaluation = new Evaluation(sheet, {}, { now: NOW });
      evaluation.setRules(rules);
      const rows = await run(linked.outcomes({ limit: 1000 }));
      const [counted] = await run(linked.counts());
      const view = await sql.unsafe(literalStatement(linked.view(({ id }, { name }) => `${id} ${name}`)));
      let at = 0;
      for (const [place, { rule, problem, outcomes }] of linked.rules.entries()) {
        const running = evaluation.activeRules[place];
        if (!running) throw new Error('the core has no such rule');
        if (problem && problem.code !== 'not-in-sql') expect(running.problem?.code, problem.message).toBe(problem.code);
        for (const { column } of outcomes) {
          const name = `o${++at}`;
          const said = rows.map((row) => row[name] ?? -1);
          const words = `${column.name} (${given.types.join(', ')}) ${JSON.stringify(rule.when)}`;
          expect(said, words).toEqual(inCore(running, sheet, column.name));
          const cells = said.filter((outcome) => outcome !== -1).length;
          expect(Number(counted?.[name]), words).toBe(cells);
          count(rule.when.kind, cells);
          // The view says the same, with its values written into it.
          const seen = view
            .toSorted((one, other) => one.id - other.id)
            .map((row) => row[`${rule.id} ${column.name}`] ?? false);
          expect(
            seen.map((told) => told !== false),
            words,
          ).toEqual(said.map((outcome) => outcome !== -1));
        }
      }
    }),
    { numRuns: Number(process.env.LINKED_RUNS ?? 2000) },
  );
  // A linked table has no history.
  for (const kind of KIND_NAMES) if (kind !== 'change') expect(found.get(kind) ?? 0, kind).toBeGreaterThan(0);
}, 600_000);
