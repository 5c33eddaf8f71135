import type { Rule } from '../../src/core/rules/shape/rule';
import type { StoredRule } from '../../src/core/rules/shape/stored-rule';
import { stationReadings } from '../../src/demo/station-readings';
import { connect } from '../../src/server/database';
import { DEMO_OWNER } from '../../src/server/people/demo-owner';
import { createSheet } from '../../src/server/sheets/create-sheet';

// Puts two sheets of 100,000 records into the database that DATABASE_URL names, the second under everything that can be
// painted at once, and prints the id of the first.
const sql = connect(process.env.DATABASE_URL!);
const contents = stationReadings({ today: 46_000, records: 100_000 });
console.log(await createSheet(sql, { ...contents, id: 'large', name: 'Large', owner: DEMO_OWNER.id }));
const { rules, ...bare } = contents;
const dress = (id: string, rule: Omit<Rule, 'id' | 'name' | 'on' | 'settles'>): StoredRule => ({
  id,
  key: `Z${id}`,
  rule: { id, name: id, on: true, settles: false, ...rule },
});
const dressed = [
  dress('bars', { reads: { fields: ['oxygen', 'turbidity'] }, when: { kind: 'bar' }, paints: 'cell' }),
  dress('icons', {
    reads: { fields: ['saturation', 'nitrate'] },
    when: { kind: 'icons', set: 'arrows3', cuts: [{ at: 0.9 }, { at: 1 }] },
    paints: 'cell',
  }),
  dress('borders', {
    reads: { fields: ['temperature'] },
    when: { kind: 'compare', is: '>', to: 5 },
    paints: 'record',
    look: { border: { bottom: { style: 'dashed', width: 1, color: '#86560a' } }, fill: '#fff4d6' },
  }),
];
await createSheet(sql, {
  ...bare,
  rules: [...dressed, ...rules],
  id: 'dressed',
  name: 'Dressed',
  owner: DEMO_OWNER.id,
});
await sql.end();
