// Puts a sheet of 500,000 records of 20 fields under 20 rules into the database that DATABASE_URL names, and prints its
// id.
import { Readable } from 'node:stream';
import { createGzip } from 'node:zlib';
import { generateNKeysBetween } from 'fractional-indexing';
import { endLine, headLine, rowLine } from '../../src/core/exchange/archive/archive-lines';
import { newField } from '../../src/core/sheet/field';
import { itemAt } from '../../src/core/values/item-at';
import { storedInOrder } from '../../src/core/rules/shape/stored-in-order';
import { FIRST_SCALE } from '../../src/core/rules/kinds/scale';
import type { Rule } from '../../src/core/rules/shape/rule';
import { stationReadings } from '../../src/demo/station-readings';
import { stationRules } from '../../src/demo/station-rules';
import { connect } from '../../src/server/database';
import { DEMO_OWNER } from '../../src/server/people/demo-owner';
import { bringInSheet } from '../../src/server/sheets/bring-in-sheet';

const RECORDS = 500_000;
/** Numbers with two decimals, nearly all different, beside the twelve fields of the demo's readings. */
const EXTRA = ['metals', 'silica', 'chloride', 'sulphate', 'hardness', 'carbon', 'flow'] as const;
const CODE = 'sample';

const contents = stationReadings({ today: 46_000, records: 20_000 });
const rule = (id: string, given: Omit<Rule, 'id' | 'name' | 'on' | 'settles' | 'paints'>): Rule => ({
  id,
  name: id,
  on: true,
  settles: false,
  paints: 'cell',
  ...given,
});
const more: readonly Rule[] = [
  ...EXTRA.map((field, at) =>
    rule(`over-${field}`, {
      reads: { fields: [field] },
      when: { kind: 'compare', is: '>', to: 900 + at },
      look: { look: 'watch' },
    }),
  ),
  rule('mean', {
    reads: { fields: ['metals'] },
    when: { kind: 'average', is: 'above', deviations: 1.5 },
    look: { look: 'cool' },
  }),
  rule('most', {
    reads: { fields: ['flow'] },
    when: { kind: 'rank', is: 'top', percent: 10 },
    look: { look: 'plum' },
  }),
  rule('repeats', { reads: { fields: [CODE] }, when: { kind: 'repeat', is: 'repeated' }, look: { look: 'ink' } }),
  rule('rain', {
    reads: { fields: ['note'] },
    when: { kind: 'text', is: 'contains', any: ['rain'] },
    look: { look: 'cool' },
  }),
  rule('ratio', {
    reads: { fields: ['silica'] },
    when: { kind: 'formula', formula: '=N2/M2>1.5' },
    look: { look: 'alarm' },
  }),
  rule('scale', { reads: { fields: ['hardness'] }, when: FIRST_SCALE }),
  rule('bars', { reads: { fields: ['carbon'] }, when: { kind: 'bar' } }),
];

function* lines(): Generator<string> {
  const keys = generateNKeysBetween(null, null, 20);
  const rowKeys = generateNKeysBetween(null, null, RECORDS + 1);
  const labels: Record<string, string> = {
    ...contents.rows[0]!.cells,
    ...Object.fromEntries(EXTRA.map((field) => [field, field])),
    [CODE]: 'Sample',
  };
  yield headLine({
    name: 'Ten million',
    fields: [
      ...contents.fields.map((field, at) => ({ ...field, key: itemAt(keys, at) })),
      ...[...EXTRA, CODE].map((id, at) => newField(id, itemAt(keys, 12 + at))),
    ],
    rules: storedInOrder([...stationRules, ...more]),
  });
  yield rowLine({ id: 'header', key: itemAt(rowKeys, 0), role: 'header', cells: labels });
  for (let at = 0; at < RECORDS; at++) {
    const { cells } = contents.rows[1 + (at % 20_000)]!;
    const extra = Object.fromEntries(
      EXTRA.map((field, place) => [field, String(((at * 7919 * (place + 3)) % 100_003) / 100)]),
    );
    yield rowLine({
      id: `r${at}`,
      key: itemAt(rowKeys, at + 1),
      role: 'record',
      cells: { ...cells, ...extra, [CODE]: `S-${at % 499_000}` },
    });
  }
  yield endLine({ rows: RECORDS + 1, changes: 0 });
}

const sql = connect(process.env.DATABASE_URL!);
console.log(await bringInSheet(sql, Readable.from(lines()).pipe(createGzip({ level: 1 })), DEMO_OWNER.id));
await sql.end();
