// Edits of many cells at once, in a sheet of 100,000 records under the demo's rules: from the edit to the new looks,
// without the network.
import { operationsOf, type Edit } from '../../src/core/edit/registry';
import { withFollowers } from '../../src/core/rules/move/follow-layout';
import { Sheet } from '../../src/core/sheet/sheet';
import { stationReadings } from '../../src/demo/station-readings';
import { Replica } from '../../src/engine/replica/replica';
import { figure, ms } from './figures.mjs';

const contents = stationReadings({ today: 46_000, records: 100_000 });
const large = new Sheet(contents.fields);
for (const row of contents.rows) {
  const slot = large.appendRow(row);
  contents.fields.forEach(({ id }, column) =>
    large.columns[column]!.set(slot, row.cells[id] ?? '', row.role === 'header'),
  );
}
large.rules.put(contents.rules);
const replica = new Replica(large, 0, { theme: 'light', nowMs: 0 });
let made = 0;

/** Once each: the second time there would be nothing to do. */
function timeOf(edit: Edit): number {
  const began = performance.now();
  const operations = operationsOf(large, edit, { newId: () => `new${++made}` });
  replica.apply({ id: `change${++made}`, operations: withFollowers(large, operations) });
  return performance.now() - began;
}

const numbers = Array.from(large.order, (slot) => large.columns[6]!.numbers[slot]!);
const began = performance.now();
numbers.map((_, at) => at).sort((a, b) => numbers[a]! - numbers[b]!);
const plain = `sorting the bare numbers ${ms(performance.now() - began)}`;
figure(
  '100,000 records sorted by a number',
  ms(timeOf({ do: 'sort-rows', by: [{ column: 6, order: 'rising' }] })),
  plain,
  'about a second',
);
const by = [{ column: 0, order: 'rising' } as const, { column: 4, order: 'falling' } as const];
figure('100,000 records sorted by a text, then a number', ms(timeOf({ do: 'sort-rows', by })), '', 'about a second');
const rows = Array.from({ length: 10_000 }, (_, row) =>
  Array.from({ length: 10 }, (__, column) => ({ input: String(row * column) })),
);
figure(
  '10,000 x 10 cells pasted',
  ms(timeOf({ do: 'paste-cells', column: 0, position: 1, rows })),
  '',
  'about a second',
);
timeOf({ do: 'paste-cells', column: 11, position: 1, rows: [[{ input: '=G2*2+E2' }]] });
const [from, to] = [1, 100_000].map((bottom) => ({ left: 11, right: 11, top: 1, bottom }));
figure(
  'a formula filled down 100,000 rows',
  ms(timeOf({ do: 'fill-cells', from: from!, to: to! })),
  '',
  'about a second',
);
