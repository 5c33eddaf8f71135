import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { anyInput, anyOperation, anyRule, makeSheet } from '../../../../test/support/arbitrary-sheet';
import { sheetFromTable } from '../../sheet/sheet-from-table';
import type { Sheet } from '../../sheet/sheet';
import { Evaluation } from './evaluation';
import { reportEvaluation } from './evaluate-report';
import type { Rule } from '../shape/rule';
import { putRules, rulesOf } from '../shape/stored-rule';

const evaluate = (sheet: Sheet, rules: readonly Rule[]) => {
  const evaluation = new Evaluation(sheet, {}, { now: 46_089.5 });
  evaluation.setRules(rules);
  return evaluation;
};

const rule = (given: Partial<Rule> & Pick<Rule, 'id' | 'when'>): Rule => ({
  name: given.id,
  on: true,
  settles: false,
  reads: { fields: ['f1'] },
  paints: 'cell',
  look: { fill: '#aaaaaa' },
  ...given,
});

test('what is kept up to date by edits is what a fresh evaluation gives', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(anyRule, { minLength: 1, maxLength: 4, selector: ({ id }) => id }),
      fc.array(anyOperation, { maxLength: 15 }),
      (rules, operations) => {
        const sheet = makeSheet();
        sheet.apply(putRules(rules.map((one, at) => ({ id: one.id, key: `a${at}`, rule: one }))));
        const inOrder = () => rulesOf(sheet).map((stored) => stored.rule);
        const kept = evaluate(sheet, inOrder());
        for (const operation of operations) {
          const { effects } = sheet.apply(operation);
          if (operation.kind === 'put-rules' || operation.kind === 'remove-rules') kept.setRules(inOrder());
          else kept.follow(effects);
        }
        expect(reportEvaluation(kept)).toEqual(reportEvaluation(evaluate(sheet, inOrder())));
      },
    ),
    { numRuns: 2000 },
  );
});

/** The same sheet, in columns that hold so many contents that numbers are kept as numbers alone. */
function amongMany(sheet: Sheet): Sheet {
  for (const column of sheet.columns) {
    for (let other = 0; other < 1000; other++) column.contents.codeFor(`other ${other}`, false);
    for (const slot of sheet.order) column.set(slot, column.inputAt(slot), sheet.roleAt(slot) === 'header');
  }
  return sheet;
}

// Against columns of few contents, which the test above holds to evaluating from scratch.
test('rules find the same among many contents, also after edits', () => {
  const number = fc.integer({ min: -99, max: 99 }).map((tenths) => String(tenths / 10));
  fc.assert(
    fc.property(
      fc.array(fc.oneof(number, anyInput), { minLength: 1, maxLength: 30 }),
      fc.uniqueArray(anyRule, { minLength: 1, maxLength: 3, selector: ({ id }) => id }),
      fc.array(anyOperation, { maxLength: 8 }),
      (...[inputs, rules, operations]) => {
        const [few, many] = [makeSheet(inputs), amongMany(makeSheet(inputs))].map((sheet) => {
          const kept = evaluate(sheet, rules);
          for (const operation of operations) kept.follow(sheet.apply(operation).effects);
          return reportEvaluation(kept);
        });
        expect(many).toEqual(few);
      },
    ),
    { numRuns: 600 },
  );
});

test('the tight loops agree with judging cell by cell', () => {
  fc.assert(
    fc.property(
      fc.array(fc.oneof(anyInput, fc.double({ noNaN: true, min: -20, max: 20 }).map(String)), { maxLength: 70 }),
      anyRule,
      (inputs, given) => {
        const sheet = makeSheet(inputs.length ? inputs : ['']);
        const running = evaluate(sheet, [{ ...given, on: true }]).activeRules[0]!;
        for (const { column, slots } of running.read)
          for (const slot of sheet.order)
            if (slots.has(slot)) expect(running.outcomeAt(column, slot)).toBe(running.judge(column, slot));
      },
    ),
    { numRuns: 2000 },
  );
});

describe('which rule wins', () => {
  const below = (id: string, to: number, more: Partial<Rule> = {}) =>
    rule({ id, when: { kind: 'compare', is: '<', to }, ...more });
  const look = (rules: readonly Rule[], address: string) =>
    reportEvaluation(evaluate(makeSheet(['5', '1', '9']), rules)).cells[address];

  test('each property comes from the first rule that sets it', () => {
    const found = look(
      [below('a', 6, { look: { fill: '#111111' } }), below('b', 7, { look: { fill: '#222222', bold: true } })],
      'A2',
    );
    expect(found).toEqual({ look: { fill: '#111111', bold: true }, from: { fill: 'a', bold: 'b' } });
  });

  test('a rule that settles ends the list, only where it matches', () => {
    const rules = [
      below('a', 2, { settles: true, look: { fill: '#111111' } }),
      below('b', 7, { look: { bold: true } }),
    ];
    expect(look(rules, 'A3')!.look).toEqual({ fill: '#111111' });
    expect(look(rules, 'A2')!.look).toEqual({ bold: true });
  });

  test('a rule that is off, or has a problem, does not count', () => {
    expect(look([below('a', 6, { on: false }), below('b', 6, { reads: { fields: ['gone'] } })], 'A2')).toBeUndefined();
  });

  test('a record is painted to the last field, once, by its first read cell from the left that has an outcome', () => {
    const bands = rule({
      id: 'a',
      reads: { fields: ['f1', 'f2'] },
      paints: 'record',
      when: { kind: 'bands', cuts: [3], looks: [{ fill: '#111111' }, { fill: '#222222' }] },
    });
    const { cells } = reportEvaluation(evaluate(makeSheet(['x', '1', '9']), [bands]));
    // Row 2 holds x in One and 'x' shifted three places, which is x again in Two; row 3 holds 1 and 1.
    expect(Object.keys(cells)).toEqual(['A3', 'B3', 'C3', 'A4', 'B4', 'C4']);
    expect(cells.C3!.look.fill).toBe('#111111');
    expect(cells.C4!.look.fill).toBe('#222222');
  });

  test('a record is painted in the fields that have a label or values, as these come and go', () => {
    const header = ['Mark', '', 'Note', ''];
    const sheet = sheetFromTable({ rows: [header, ['1', '', '', ''], ['9', '', '', '']], width: 4 }, { header: true });
    const low = rule({
      id: 'r',
      reads: { fields: [sheet.field(0).id] },
      when: { kind: 'compare', is: '<', to: 5 },
      paints: 'record',
      look: { bold: true },
    });
    const evaluation = evaluate(sheet, [low]);
    const painted = () => Object.keys(reportEvaluation(evaluation).cells);
    const enter = (input: string, field = 1) => {
      const cells = [{ row: sheet.rowId(sheet.slotAt(2)), field: sheet.field(field).id, input }];
      evaluation.follow(sheet.apply({ kind: 'set-cells', cells }).effects);
    };
    expect(painted()).toEqual(['A2', 'C2']);
    enter('x');
    expect(painted()).toEqual(['A2', 'B2', 'C2']);
    enter('');
    enter('y', 3);
    expect(painted()).toEqual(['A2', 'C2', 'D2']);
  });

  test('the sides of a border are won one by one', () => {
    const side = (color: string) => ({ style: 'solid' as const, width: 1, color });
    const found = look(
      [
        below('a', 6, { look: { border: { top: side('#111111') } } }),
        below('b', 6, { look: { border: { around: side('#222222') } } }),
      ],
      'A2',
    );
    expect(found!.from.border).toEqual({ top: 'a', right: 'b', bottom: 'b', left: 'b' });
  });
});

// Marked in the rules format as common practice, without a source.
describe('common practice', () => {
  const matched = (inputs: readonly string[], when: Rule['when']) => {
    const sheet = sheetFromTable({ rows: [['Mark'], ...inputs.map((input) => [input])], width: 1 }, { header: true });
    return reportEvaluation(evaluate(sheet, [rule({ id: 'r', when, reads: { fields: [sheet.field(0).id] } })]))
      .rules[0]!.matched;
  };

  test('above 89: 89 is not, 89.5 and 90 are', () =>
    expect(matched(['89', '89.5', '90'], { kind: 'compare', is: '>', to: 89 })).toEqual(['A3', 'A4']));
  test('at most 70 % takes 0.70', () =>
    expect(matched(['70%', '0.70', '70.1%'], { kind: 'compare', is: '<=', to: 0.7 })).toEqual(['A2', 'A3']));
  test('a payment is judged by its magnitude', () =>
    expect(matched(['-1200', '-900', '1300'], { kind: 'compare', is: '>', to: 1000, magnitude: true })).toEqual([
      'A2',
      'A4',
    ]));
  test('a value is compared as it is shown', () =>
    expect(matched(['4.995%', '5%'], { kind: 'compare', is: '>=', to: 0.05, asShown: true })).toEqual(['A3']));
  test('dates compare with ISO dates, time and all', () =>
    expect(
      matched(['2026-03-08', '2026-03-08 14:30', '46089'], { kind: 'compare', is: '>', to: '2026-03-08' }),
    ).toEqual(['A3']));
  test('a header, a blank and a text never fire', () =>
    expect(matched(['', 'Mark', ' '], { kind: 'compare', is: '>', to: -1e9 })).toEqual([]));
});

test('what hangs on the clock follows it, in cells and in rules', () => {
  const made = sheetFromTable(
    {
      rows: [
        ['day', 'left'],
        ['2026-03-10', '=day-TODAY()'],
        ['2026-03-08', '=day-TODAY()'],
      ],
      width: 2,
    },
    { header: true },
  );
  const [day, left] = made.fields.map(({ id }) => id) as [string, string];
  const evaluation = new Evaluation(made, {}, { now: 46_089.5 });
  evaluation.setRules([
    rule({ id: 'today', reads: { fields: [day] }, when: { kind: 'date', is: 'today' } }),
    rule({ id: 'soon', reads: { fields: [left] }, when: { kind: 'compare', is: '<=', to: 1 } }),
  ]);
  const matched = () => reportEvaluation(evaluation).rules.map((report) => report.matched);
  expect(matched()).toEqual([['A3'], ['B3']]);
  evaluation.tick(46_091.1);
  expect(matched()).toEqual([['A2'], ['B2', 'B3']]);
});
