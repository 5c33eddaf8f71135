import { describe, expect, test } from 'vitest';
import { Evaluation } from '../evaluate/evaluation';
import { ruleSentence } from '../shape/sentence-words';
import { namedFields } from '../shape/named-fields';
import { sheetFromTable } from '../../sheet/sheet-from-table';
import type { Sheet } from '../../sheet/sheet';
import { explainFill } from './explain-fill';
import { handFills } from './hand-fills';

const OXYGEN = [4.6, 9.8, 5, 7.4, 3.9, 8.8, 6.1, 4.9, 10.2, 5.4, 4.1, 7.7, 9.1, 2.8, 6.6, 8.2, 5.1, 4.4, 7.9, 6.9];
const CREWS = ['North', 'South', 'East'];

function readings(): Sheet {
  const rows = [['Crew', 'Oxygen'], ...OXYGEN.map((level, at) => [CREWS[at % 3] ?? '', String(level)])];
  return sheetFromTable({ rows, width: 2 }, { header: true });
}

const FILL = '#ffe08a';
const paint = (sheet: Sheet, column: number, isFilled: (position: number) => boolean): void => {
  for (const [at] of OXYGEN.entries()) if (isFilled(at)) sheet.setStyle(column, at + 1, { fill: FILL });
};

const explained = (sheet: Sheet) => {
  const evaluation = new Evaluation(sheet, {});
  return handFills(sheet).map((fill) => {
    const [best] = explainFill(evaluation, fill);
    return best && { says: ruleSentence(namedFields(sheet), best.idea), misses: best.misses.map(({ slot }) => slot) };
  });
};

// A person who paints by hand follows a rule; which one is known here, and told to nobody.
describe('fills by hand', () => {
  test('are explained by the limit that was followed', () => {
    const sheet = readings();
    paint(sheet, 1, (at) => (OXYGEN[at] ?? 0) < 5);
    expect(explained(sheet)).toEqual([{ says: 'Oxygen is below 5', misses: [] }]);
  });

  test('with one slip of the hand, by the same rule, and the slip is named', () => {
    const sheet = readings();
    paint(sheet, 1, (at) => (OXYGEN[at] ?? 0) < 6 || at === 3);
    expect(explained(sheet)).toEqual([{ says: 'Oxygen is below 6', misses: [4] }]);
  });

  test('of whole records, by a field of theirs', () => {
    const sheet = readings();
    for (const column of [0, 1]) paint(sheet, column, (at) => CREWS[at % 3] === 'East');
    expect(handFills(sheet)).toMatchObject([{ isRecord: true, count: 6 }]);
    expect(explained(sheet)).toEqual([{ says: 'Crew is “East”', misses: [] }]);
  });

  test('in two fields of the same records, by the field that decides; a slip counts once', () => {
    const rows = [['Crew', 'Oxygen', 'Plan'], ...OXYGEN.map((level, at) => [CREWS[at % 3]!, String(level), '7'])];
    const sheet = sheetFromTable({ rows, width: 3 }, { header: true });
    for (const column of [1, 2]) paint(sheet, column, (at) => OXYGEN[at]! < 6 || at === 3);
    expect(explained(sheet)).toEqual([{ says: 'Oxygen is below 6', misses: [4] }]);
  });

  test('of a whole field are decoration', () => {
    const sheet = readings();
    paint(sheet, 0, () => true);
    expect(handFills(sheet)).toEqual([]);
  });
});
