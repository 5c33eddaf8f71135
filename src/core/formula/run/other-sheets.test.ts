import { expect, test } from 'vitest';
import { makeSheet } from '../../../../test/support/arbitrary-sheet';
import { sheetFromTable } from '../../sheet/sheet-from-table';
import type { Sheet } from '../../sheet/sheet';
import { Evaluation } from '../../rules/evaluate/evaluation';

const kit = () =>
  sheetFromTable(
    {
      rows: [
        ['Item', 'Stock'],
        ['Probe', '4'],
        ['Reagent', '6'],
        ['Buffer', 'none'],
      ],
      width: 2,
    },
    { header: true },
  );

function shownIn(sheet: Sheet): string[] {
  return [0, 1, 2].map((row) => sheet.column(0).entryAt(sheet.findSlot(`r${row}`)!).shown);
}

const enter = (sheet: Sheet, inputs: readonly string[]) =>
  sheet.apply({ kind: 'set-cells', cells: inputs.map((input, row) => ({ row: `r${row}`, field: 'f1', input })) });

test('formulas read other sheets of the workspace by name, and follow them when they change', () => {
  const [sheet, other] = [makeSheet(), kit()];
  enter(sheet, ["=$'Sampling kit'.B2*2", "=SUM($'Sampling kit'.B2:B4)", "=COUNTA($'Sampling kit'.A:A)"]);
  const evaluation = new Evaluation(sheet, {}, { findSheet: (name) => (name === 'Sampling kit' ? other : undefined) });
  expect(shownIn(sheet)).toEqual(['8', '10', '4']);
  evaluation.setRules([
    {
      id: 'r',
      name: 'R',
      on: true,
      settles: false,
      reads: { fields: ['f1'] },
      when: { kind: 'formula', formula: "=A2>$'Sampling kit'.$B$3", at: 'A2' },
      paints: 'cell',
      look: { bold: true },
    },
  ]);
  const matched = () =>
    [0, 1, 2].filter((row) => evaluation.activeRules[0]!.outcomeAt(0, sheet.findSlot(`r${row}`)!) === 0);
  expect(matched()).toEqual([0, 1]);
  other.apply({ kind: 'set-cells', cells: [{ ...other.cellIds(1, 1), input: '1' }] });
  evaluation.otherSheetChanged();
  expect(shownIn(sheet)).toEqual(['2', '7', '4']);
  expect(matched()).toEqual([1]);
});

test('a sheet that is not there is #REF!', () => {
  const sheet = makeSheet();
  enter(sheet, ["=$'Nowhere'.B2"]);
  expect(new Evaluation(sheet, {}).calculation && shownIn(sheet)[0]).toBe('#REF!');
});

test('a named range stands for its cells, whatever the case, wins over a label, and changes what reads it', () => {
  const sheet = makeSheet();
  enter(sheet, ['=Limit*2', '=SUM(limits)', '=Two']);
  const evaluation = new Evaluation(sheet, {});
  expect(shownIn(sheet).slice(0, 2)).toEqual(['#NAME?', '#NAME?']);
  const name = (text: string, refersTo: string) => ({
    id: text.toLowerCase(),
    kind: 'name' as const,
    name: text,
    refersTo,
  });
  evaluation.follow(
    sheet.apply({
      kind: 'put-parts',
      parts: [name('Limit', '=$C$2'), name('Limits', '=$C$2:$C$3'), name('Two', '=$C$2')],
    }).effects,
  );
  // Beside 5 stands 2026-03-08, day 46,089 since 1899-12-30.
  expect(shownIn(sheet)).toEqual(['10', '46094', '5']);
  const limit = { row: 'r0', field: 'f3', input: '7' };
  evaluation.follow(sheet.apply({ kind: 'set-cells', cells: [limit] }).effects);
  expect(shownIn(sheet)).toEqual(['14', '46096', '7']);
  evaluation.follow(sheet.apply({ kind: 'remove-parts', parts: ['limit'] }).effects);
  expect(shownIn(sheet)[0]).toBe('#NAME?');
});
