import { describe, expect, test } from 'vitest';
import { makeSheet } from '../../../../test/support/arbitrary-sheet';
import { holdRanges } from '../../formula/resolve/hold-ranges';
import { inRow, keepReferences, showReferences } from '../../formula/resolve/keep-references';
import type { Operation } from '../../sheet/change';
import { Evaluation } from '../evaluate/evaluation';
import { reportEvaluation } from '../evaluate/evaluate-report';
import { withFollowers } from './follow-layout';
import type { Rule } from '../shape/rule';
import { findRule, rulesOf } from '../shape/stored-rule';

/*
 * The behaviour that people expect of addresses when rows and fields are inserted, moved or removed: each names the
 * cell it named before. Common practice; ISO/IEC 26300 leaves it to the program.
 */
const insertOnTop: Operation = { kind: 'insert-rows', rows: [{ id: 'top', key: 'Zz', role: 'title', cells: {} }] };
const rule = (part: Partial<Rule>): Rule => ({
  id: 'r',
  name: 'R',
  on: true,
  settles: false,
  reads: { fields: ['f1'] },
  when: { kind: 'state', is: 'filled' },
  paints: 'cell',
  look: { bold: true },
  ...part,
});

function afterwards(kept: Rule, ...operations: Operation[]): Rule {
  const sheet = makeSheet();
  sheet.rules.put([{ id: kept.id, key: 'a0', rule: kept }]);
  for (const operation of withFollowers(sheet, operations)) sheet.apply(operation);
  return findRule(sheet, kept.id)!.rule;
}

describe('rules follow the cells that they name by address', () => {
  const cases: readonly (readonly [says: string, before: Partial<Rule>, operation: Operation, after: Partial<Rule>])[] =
    [
      ['a range moves down', { reads: { cells: 'A2:B4 C6' } }, insertOnTop, { reads: { cells: 'A3:B5 C7' } }],
      [
        'a range loses its first row',
        { reads: { cells: 'A2:B4' } },
        { kind: 'remove-rows', rows: ['r0'] },
        { reads: { cells: 'A2:B3' } },
      ],
      [
        'a range that goes',
        { reads: { cells: 'A2:A3' } },
        { kind: 'remove-rows', rows: ['r0', 'r1'] },
        { reads: { cells: '#REF!' } },
      ],
      [
        'a range moves with its field',
        { reads: { cells: 'C2:C4' } },
        { kind: 'remove-fields', fields: ['f2'] },
        { reads: { cells: 'B2:B4' } },
      ],
      ['whole columns stay whole', { reads: { cells: 'B:B C:D' } }, insertOnTop, { reads: { cells: 'B:B C:D' } }],
      [
        'whole columns move with their field',
        { reads: { cells: 'C:C' } },
        { kind: 'remove-fields', fields: ['f2'] },
        { reads: { cells: 'B:B' } },
      ],
      ['whole rows move down and stay whole', { reads: { cells: '2:3' } }, insertOnTop, { reads: { cells: '3:4' } }],
      [
        'a limit cell',
        { when: { kind: 'compare', is: '<', to: { cell: '$B$3' } } },
        insertOnTop,
        { when: { kind: 'compare', is: '<', to: { cell: 'B4' } } },
      ],
      [
        'a limit cell that goes',
        { when: { kind: 'compare', is: '<', to: { cell: 'B3' } } },
        { kind: 'remove-rows', rows: ['r1'] },
        { when: { kind: 'compare', is: '<', to: { cell: '#REF!' } } },
      ],
      [
        'a formula: relative parts move along, absolute ones follow their cell',
        { when: { kind: 'formula', formula: '=AND(A2>$B$3;$C2="x";A1<>A2)' } },
        insertOnTop,
        { when: { kind: 'formula', formula: '=AND(A3>$B$4;$C3="x";A2<>A3)', at: 'A3' } },
      ],
      [
        'a formula when its limit moves to the end',
        { when: { kind: 'formula', formula: '=A2>$B$3', at: 'A2' } },
        { kind: 'change-rows', rows: [{ id: 'r1', key: 'zz' }] },
        { when: { kind: 'formula', formula: '=A2>$B$11', at: 'A2' } },
      ],
      [
        'positions of a scale',
        {
          when: {
            kind: 'scale',
            stops: [
              { at: { cell: 'A3' }, color: '#ffffff' },
              { at: { formula: '=MAX($A$2:$A$9)' }, color: '#000000' },
            ],
          },
        },
        { kind: 'remove-rows', rows: ['r0'] },
        {
          when: {
            kind: 'scale',
            stops: [
              { at: { cell: 'A2' }, color: '#ffffff' },
              { at: { formula: '=MAX($A$2:$A$8)' }, color: '#000000' },
            ],
          },
        },
      ],
      [
        'a formula of a rule whose cells are gone stays readable',
        { reads: { cells: '#REF!' }, when: { kind: 'formula', formula: '=A2>$B$3' } },
        insertOnTop,
        { reads: { cells: '#REF!' }, when: { kind: 'formula', formula: '=A3>$B$4' } },
      ],
      [
        'a key in cells',
        { when: { kind: 'key', expect: { cells: 'C2:C11' }, looks: {} } },
        insertOnTop,
        { when: { kind: 'key', expect: { cells: 'C3:C12' }, looks: {} } },
      ],
    ];
  test.each(cases)('%s', (...[, before, operation, after]) =>
    expect(afterwards(rule(before), operation)).toEqual(rule(after)),
  );

  test('what they match stays the same cells', () => {
    const kept = rule({ reads: { cells: 'A2:A8' }, when: { kind: 'formula', formula: '=A2>=$B$2', at: 'A2' } });
    const sheet = makeSheet();
    const matchedRows = () => {
      const evaluation = new Evaluation(sheet, {});
      evaluation.setRules(rulesOf(sheet).map((stored) => stored.rule));
      return reportEvaluation(evaluation).rules[0]!.matched.map((cell) =>
        sheet.rowId(sheet.slotAt(Number(cell.slice(1)) - 1)),
      );
    };
    sheet.rules.put([{ id: 'r', key: 'a0', rule: kept }]);
    const before = matchedRows();
    expect(before.length).toBeGreaterThan(0);
    for (const operation of withFollowers(sheet, [insertOnTop])) sheet.apply(operation);
    expect(matchedRows()).toEqual(before);
  });

  test('named ranges follow as well, and the change can be taken back', () => {
    const sheet = makeSheet();
    sheet.parts.put([{ id: 'limits', kind: 'name', name: 'Limits', refersTo: '=$A$3:$A$5' }]);
    const inverse: Operation[] = [];
    for (const operation of withFollowers(sheet, [insertOnTop])) inverse.unshift(...sheet.apply(operation).inverse);
    expect(sheet.findName('LIMITS')?.refersTo).toBe('=$A$4:$A$6');
    for (const operation of inverse) sheet.apply(operation);
    expect(sheet.findName('limits')?.refersTo).toBe('=$A$3:$A$5');
    sheet.parts.put([{ id: 'limit', kind: 'name', name: 'Limit', refersTo: '=A3:B4' }]);
    for (const operation of withFollowers(sheet, [insertOnTop])) sheet.apply(operation);
    expect(sheet.findName('limit')?.refersTo).toBe('=A4:B5');
  });
});

describe('ranges in cells when an end is removed', () => {
  test.each([
    ['=SUM(A2:A5)', { kind: 'remove-rows', rows: ['r3', 'r2'] }, '=SUM(A2:A3)'],
    ['=SUM($A$2:A5)', { kind: 'remove-rows', rows: ['r0'] }, '=SUM($A$2:A4)'],
    ['=SUM(A3:C3)', { kind: 'remove-fields', fields: ['f1'] }, '=SUM(A3:B3)'],
    ['=SUM(A2:A5)', { kind: 'change-rows', rows: [{ id: 'r3', key: 'Zz' }] }, '=SUM(A3:A5)'],
    ['=SUM(A2:A4)', { kind: 'change-rows', rows: [{ id: 'r8', key: 'a2V' }] }, '=SUM(A2:A5)'],
    // Up to the formula's own row, which is row 11: it goes along where that row is moved, and holds what it covers
    // where others are.
    ['=SUM(A2:A11)', { kind: 'change-rows', rows: [{ id: 'r0', key: 'zz' }] }, '=SUM(A2:A11)'],
    ['=SUM(A9:A11)', { kind: 'remove-rows', rows: ['r8'] }, '=SUM(A9:A10)'],
    ['=SUM(A$2:A11)', { kind: 'change-rows', rows: [{ id: 'r9', key: 'a2V' }] }, '=SUM(A$2:A3)'],
    ['=SUM(A2:A3)+1', { kind: 'remove-rows', rows: ['r0', 'r1'] }, '=SUM(#REF!)+1'],
  ] satisfies [string, Operation, string][])('%s', (formula, operation, after) => {
    const sheet = makeSheet();
    const slot = sheet.findSlot('r9')!;
    sheet.apply({
      kind: 'set-cells',
      cells: [{ row: 'r9', field: 'f3', input: keepReferences(formula, sheet, inRow(sheet, slot)) }],
    });
    const cells = holdRanges(sheet, [operation]);
    if (cells.length) sheet.apply({ kind: 'set-cells', cells });
    sheet.apply(operation);
    expect(showReferences(sheet.columns.at(-1)!.inputAt(slot), sheet, slot)).toBe(after);
  });
});
