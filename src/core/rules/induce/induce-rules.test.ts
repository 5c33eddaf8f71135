import { describe, expect, test } from 'vitest';
import { Evaluation } from '../evaluate/evaluation';
import type { ExampleCell } from '../propose/evidence';
import { sheetFromTable } from '../../sheet/sheet-from-table';
import { cellAddress } from '../../sheet/address';
import { induceRules } from './induce-rules';
import { proposeRules } from './propose-rules';
import type { ExamplesGiven } from './proposal';
import { tellingCell } from './telling-cell';

const MARKS = ['55', '69.9', '70', '88', '', '91', '12', '74', '66', '100'];
const STATES = ['open', 'done', 'open', 'late', 'done', 'open', 'late', 'done', 'open', 'late'];
const rows = [['Mark', 'State'], ...MARKS.map((mark, at) => [mark, STATES[at] ?? ''])];
const sheet = sheetFromTable({ rows, width: 2 }, { header: true });
const evaluation = new Evaluation(sheet, {}, { now: 46_000 });

/** Of marks alone. */
const evaluationOf = (...marks: string[]): Evaluation =>
  new Evaluation(sheetFromTable({ rows: [['Mark'], ...marks.map((mark) => [mark])], width: 1 }, { header: true }), {});

const cellsAt = (column: number, ...records: readonly number[]): ExampleCell[] =>
  records.map((record) => ({ column, slot: record }));
const given = (wanted: ExampleCell[], unwanted: ExampleCell[], paints: 'cell' | 'record' = 'cell'): ExamplesGiven => ({
  wanted: [{ look: { fill: '#ffdd00' }, cells: wanted }],
  unwanted,
  paints,
});
const sentences = (examples: ExamplesGiven) =>
  induceRules(evaluation, examples).proposals.map(({ sentence }) => sentence);

// What a person means by such examples is common practice: the roundest limit between them, a value, a blank.
describe('rules from examples', () => {
  test.each([
    { wanted: [1, 2], unwanted: [3], says: 'Mark is below 70' },
    { wanted: [3, 4], unwanted: [2], says: 'Mark is at least 70' },
    { wanted: [5], unwanted: [1], says: 'Mark is blank' },
    { wanted: [10, 6], unwanted: [4, 8], says: 'Mark is above 90' },
  ])('of marks $wanted and not $unwanted: $says', ({ wanted, unwanted, says }) => {
    expect(sentences(given(cellsAt(0, ...wanted), cellsAt(0, ...unwanted))).slice(0, 3)).toContain(says);
  });

  test('a value of a field, and of whole records the field that tells them', () => {
    expect(sentences(given(cellsAt(1, 4, 7), cellsAt(1, 1)))[0]).toBe('State is “late”');
    expect(sentences(given(cellsAt(0, 4, 7, 10), cellsAt(0, 1, 2, 3, 8), 'record'))[0]).toBe('State is “late”');
  });

  test('two conditions where no single one fits', () => {
    // Open, and 66 or more: records 3, 6 and 9; neither is enough by itself.
    const found = sentences(given(cellsAt(0, 3, 6, 9), cellsAt(0, 1, 2, 4, 8, 10), 'record'));
    expect(
      found.some((sentence) =>
        /Mark is (above|at least) .* and State is “open”|State is “open” and Mark/.test(sentence),
      ),
    ).toBe(true);
  });

  test('with the last cell on either side of the limit', () => {
    const [first] = induceRules(evaluation, given(cellsAt(0, 1, 2), cellsAt(0, 3))).proposals;
    const near = first?.near.map(({ column, slot, isPainted }) => [
      cellAddress(column, sheet.positionOf(slot)),
      isPainted,
    ]);
    expect(near).toEqual([
      ['A3', true],
      ['A4', false],
    ]);
  });

  test('where one example of several fits nothing, it is named', () => {
    // A third 5 was pointed at as one that is not wanted.
    const slip = given(cellsAt(0, 1, 2, 3), cellsAt(0, 4, 5, 6));
    const [best] = induceRules(evaluationOf('5', '5', '6', '7', '8', '5', '9'), slip).proposals;
    expect(best?.sentence).toMatch(/^Mark is (at most 6|below 7)$/);
    expect(best?.misses).toEqual(cellsAt(0, 6));
  });

  test('another reason for the same cells stands after the first', () => {
    const { proposals } = induceRules(evaluation, given(cellsAt(0, 10, 6), cellsAt(0, 4, 8)));
    const same = proposals.findIndex(({ isSame }) => isSame);
    expect(
      proposals
        .slice(same - 1, same + 1)
        .map(({ idea }) => idea.when.kind)
        .sort(),
    ).toEqual(['compare', 'rank']);
    expect(proposals[same]?.count).toBe(proposals[same - 1]?.count);
  });

  test('two conditions that come to a limit over the same field are no other reason', () => {
    const marks = evaluationOf('92', '70', '50', '35', '68', '20', '53', '114', '7', '41');
    const [best] = proposeRules(marks, given(cellsAt(0, 1, 2), cellsAt(0, 3, 4)));
    expect(best?.idea.when).toEqual({ kind: 'compare', is: '>', to: 50 });
    expect(best?.same.filter(({ combination }) => combination)).toEqual([]);
  });

  test('nothing without a cell that is wanted', () => {
    expect(induceRules(evaluation, given([], cellsAt(0, 1)))).toEqual({ proposals: [] });
  });

  test('the question is about the cell over which the proposals are divided most evenly', () => {
    const proposals = proposeRules(evaluation, given(cellsAt(0, 7), cellsAt(0, 10)));
    const [best] = proposals;
    const near = proposals.filter(({ bits }) => bits - (best?.bits ?? 0) < 10);
    const doubt = (slot: number): number => {
      const sums = [0, 0];
      for (const { painted, bits } of near) {
        const at = painted.lookAt({ column: 0, slot }) < 0 ? 0 : 1;
        sums[at] = (sums[at] ?? 0) + 2 ** ((best?.bits ?? 0) - bits);
      }
      return sums.reduce((all, sum) => all + sum ** 2, 0);
    };
    const asked = tellingCell(proposals, { sheet, columns: [0], looks: 1 });
    const least = Math.min(...sheet.order.slice(1).map(doubt));
    expect(doubt(asked?.slot ?? -1)).toBeCloseTo(least, 9);
  });

  test('two looks give bands between them, or a look for each value', () => {
    const two = (low: ExampleCell[], high: ExampleCell[]): ExamplesGiven => ({
      wanted: [
        { look: { fill: '#ffdd00' }, cells: low },
        { look: { fill: '#00ddff' }, cells: high },
      ],
      unwanted: [],
      paints: 'cell',
    });
    expect(sentences(two(cellsAt(0, 1, 2), cellsAt(0, 3, 4)))[0]).toBe('Mark is in one of 2 bands, cut at 70');
    expect(sentences(two(cellsAt(1, 1), cellsAt(1, 2)))[0]).toBe('State has the look of its value: open, done');
  });
});
