import { storedInOrder } from '../src/core/rules/shape/stored-in-order';
import type { Rule } from '../src/core/rules/shape/rule';
import { database } from '../src/server/database';
import { makeLinkedSheet } from '../src/server/linked/make-linked-sheet';
import { DEMO_OWNER, makeDemoOwner } from '../src/server/people/demo-owner';
import { putRule } from '../src/server/sql/rule';

// Makes the sheet of `npm run linked-demo`: a table at an address, with six rules. With `json` it prints the sheet's id
// and the rules, for programs.
const [address = '', form] = process.argv.slice(2);

const rule = (id: string, name: string, rest: Pick<Rule, 'reads' | 'when'> & Partial<Rule>): Rule => ({
  id,
  name,
  on: true,
  settles: false,
  paints: 'cell',
  ...rest,
});

/** Fields are f1 and so on, in the order of the table's columns. */
const RULES: readonly Rule[] = [
  rule('low', 'Low oxygen', {
    reads: { fields: ['f4'] },
    when: { kind: 'compare', is: '<', to: 6 },
    look: { look: 'alarm' },
  }),
  rule('acid', 'pH out of range', {
    reads: { fields: ['f5'] },
    when: {
      kind: 'bands',
      cuts: [6.8, 8.2],
      looks: [{ look: 'watch', bold: true }, null, { look: 'cool', italic: true }],
      names: ['acid', 'fit', 'alkaline'],
    },
  }),
  rule('cloudy', 'Cloudier than usual', {
    reads: { fields: ['f6'] },
    when: { kind: 'average', is: 'above', deviations: 3 },
    look: { look: 'watch' },
  }),
  rule('highest', 'Among the 100 highest', {
    reads: { fields: ['f4'] },
    when: { kind: 'rank', is: 'top', n: 100 },
    look: { look: 'clear' },
  }),
  rule('flood', 'In flood', {
    reads: { fields: ['f7'] },
    when: { kind: 'text', is: 'equals', any: ['flood'] },
    look: { look: 'cool' },
  }),
  rule('unsaid', 'Flow not noted', {
    reads: { fields: ['f7'] },
    when: { kind: 'state', is: 'blank' },
    look: { look: 'plum' },
  }),
];

const sql = database();
try {
  await makeDemoOwner(sql);
  await sql`delete from sheet using sheet_member member where member.sheet_id = sheet.id and member.person_id = ${DEMO_OWNER.id}
    and exists (select from linked_table where linked_table.sheet_id = sheet.id)`;
  const id = await makeLinkedSheet(DEMO_OWNER.id, { name: 'All readings', address, table: 'readings', key: [] });
  for (const stored of storedInOrder(RULES)) await putRule(sql, id, stored);
  console.log(
    form === 'json'
      ? JSON.stringify({ id, rules: RULES })
      : `\n  The sheet is “All readings” on the start page: /sheets/${id}\n  Its address, to link the table again: ${address}\n`,
  );
} finally {
  await sql.end();
}
