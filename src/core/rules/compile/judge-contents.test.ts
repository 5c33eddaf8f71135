import { expect, test } from 'vitest';
import { sheetFromTable } from '../../sheet/sheet-from-table';
import { Evaluation } from '../evaluate/evaluation';
import type { When } from '../kinds/registry';

// A rule over texts meets a cell as it is shown.
test.each<[string, When]>([
  ['a word', { kind: 'text', is: 'contains', any: ['5.00'] }],
  ['a look for a value', { kind: 'category', looks: { '5.00': { bold: true } } }],
])('the same number is judged by the format of its own row, whichever comes first: %s', (_, when) => {
  for (const formatted of [1, 2]) {
    const sheet = sheetFromTable({ rows: [['v'], ['5'], ['5']], width: 1 }, { header: true });
    sheet.apply({ kind: 'change-rows', rows: [{ id: sheet.rowId(formatted), style: { number: '0.00' } }] });
    const evaluation = new Evaluation(sheet, {});
    const reads = { fields: [sheet.field(0).id] };
    const look = { bold: true };
    evaluation.setRules([{ id: 'r', name: 'R', on: true, settles: false, reads, when, paints: 'cell', look }]);
    const [running] = evaluation.activeRules;
    expect([1, 2].map((slot) => running?.outcomeAt(0, slot))).toEqual(
      [1, 2].map((slot) => (slot === formatted ? 0 : -1)),
    );
  }
});
