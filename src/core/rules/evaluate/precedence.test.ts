import fc from 'fast-check';
import { expect, test } from 'vitest';
import { anyOperation, anyRule, makeSheet } from '../../../../test/support/arbitrary-sheet';
import { lookProperties, nestProperties, type LookProperty } from '../../looks/look';
import { readableText } from '../../looks/readable-text';
import { cellAddress } from '../../sheet/address';
import type { Sheet } from '../../sheet/sheet';
import { Evaluation } from './evaluation';
import { reportEvaluation } from './evaluate-report';
import { kindOf } from '../kinds/registry';
import type { Rule } from '../shape/rule';

const rules = fc.uniqueArray(anyRule, { minLength: 2, maxLength: 4, selector: ({ id }) => id });

const evaluate = (sheet: Sheet, list: readonly Rule[]) => {
  const evaluation = new Evaluation(sheet, {}, { now: 46_089.5 });
  evaluation.setRules(list);
  return evaluation;
};

/**
 * Which rule wins, said as the rules format says it: cell by cell, each rule alone, its properties one by one. No
 * merging, nothing shared.
 */
function plainLooks(sheet: Sheet, list: readonly Rule[]): Record<string, unknown> {
  const alone = list.map((rule) => evaluate(sheet, [rule]).activeRules[0]!);
  const looks: Record<string, unknown> = {};
  sheet.order.forEach((slot, position) =>
    sheet.fields.forEach((_, column) => {
      const won = new Map<LookProperty, unknown>();
      let chooses = false;
      for (const running of alone) {
        if (!running.works || !running.painted.has(column)) continue;
        const sources = running.rule.paints === 'cell' ? [column] : running.read.map((read) => read.column);
        const source = sources.find((candidate) => running.outcomeAt(candidate, slot) >= 0);
        if (source === undefined) continue;
        const look = running.variesByCell
          ? running.lookOf(source, slot)
          : running.look(running.outcomeAt(source, slot));
        for (const [name, value] of look ? lookProperties(look, {}) : []) if (!won.has(name)) won.set(name, value);
        chooses ||= kindOf(running.rule.when).choosesText === true;
        if (running.rule.settles) break;
      }
      if (chooses && won.has('fill') && !won.has('text')) won.set('text', readableText(won.get('fill') as never));
      if (won.size) looks[cellAddress(column, position)] = nestProperties(won);
    }),
  );
  return looks;
}

const looksOf = (evaluation: Evaluation) =>
  Object.fromEntries(Object.entries(reportEvaluation(evaluation).cells).map(([address, { look }]) => [address, look]));

test('the look of each cell is what the rules say one by one', () => {
  fc.assert(
    fc.property(rules, (list) => {
      const sheet = makeSheet();
      expect(looksOf(evaluate(sheet, list))).toEqual(plainLooks(sheet, list));
    }),
    { numRuns: 600 },
  );
});

test('precedence hangs on the order of the rules alone, never on the order in which they were evaluated', () => {
  fc.assert(
    fc.property(
      rules,
      fc.array(anyOperation, { maxLength: 6 }),
      fc.infiniteStream(fc.nat()),
      (list, operations, numbers) => {
        const straight = evaluate(makeSheet(), list);
        const wandering = evaluate(makeSheet(), []);
        const pick = (below: number) => (numbers.next().value as number) % below;
        const edits = operations.filter(({ kind }) => !kind.includes('rules'));
        // Rules are added one after another and in any order, with edits in between; each time all that are there stand
        // in their order.
        const waiting = [...list];
        const working = new Set<Rule>();
        while (waiting.length || edits.length) {
          if (waiting.length && (edits.length === 0 || pick(2) === 0)) {
            working.add(waiting.splice(pick(waiting.length), 1)[0]!);
            wandering.setRules(list.filter((rule) => working.has(rule)));
          } else {
            const edit = edits.shift()!;
            for (const evaluation of [wandering, straight]) evaluation.follow(evaluation.sheet.apply(edit).effects);
          }
        }
        expect(reportEvaluation(wandering)).toEqual(reportEvaluation(straight));
      },
    ),
    { numRuns: 1500 },
  );
});
