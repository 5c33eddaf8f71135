import type { BitSet } from '../../core/values/bit-set';
import { itemAt } from '../../core/values/item-at';
import { wholeSentence } from '../../core/rules/shape/sentence-words';
import { columnLetters } from '../../core/sheet/address';
import type { Sheet } from '../../core/sheet/sheet';
import { fieldFormat } from '../../core/sheet/shown-cell';
import type { LegendEntry, ShownField } from '../../protocol/sheet-view';
import type { RunningRule } from '../../core/rules/evaluate/running-rule';
import type { WholeCounts, WholeTable } from '../link/whole-table';
import type { Replica } from '../replica/replica';

/** The fields as they are called on screen: by their labels, else by their letters. */
export const shownFields = (sheet: Sheet): ShownField[] =>
  sheet.fields.map((field, column) => ({
    ...field,
    format: fieldFormat(sheet, column),
    label: sheet.labelOf(column) ?? columnLetters(column),
  }));

/** The active rules in order of precedence, with the sentence of each and how many cells it has looks for. */
export function legendOf(replica: Replica): LegendEntry[] {
  const stored = replica.rulesAtWork();
  const fields = shownFields(replica.sheet);
  const counts = new Map<BitSet, number>();
  const countOf = (slots: BitSet): number => {
    const count = counts.get(slots) ?? slots.count();
    counts.set(slots, count);
    return count;
  };
  const countsOf = (running: RunningRule): WholeCounts => {
    const whole = replica.whole?.countsOf(running.rule);
    return {
      read: whole?.read ?? running.readCount(countOf),
      matched: whole?.matched ?? running.shownCount(),
    };
  };
  return replica.evaluation.activeRules.map((running, at) => ({
    ...countsOf(running),
    id: running.rule.id,
    key: itemAt(stored, at).key,
    rule: running.rule,
    outcomes: running.outcomeCounts(),
    ...standing(replica.whole, running),
    isDraft: running.rule.id === replica.draftId,
    isPersonal: replica.personal.some(({ id }) => id === running.rule.id),
    sentence: wholeSentence(fields, running.rule),
  }));
}

/** Why a rule cannot work; or that it is still being worked out, over a table that is elsewhere. */
function standing(
  whole: WholeTable | null,
  { rule, problem }: RunningRule,
): Pick<LegendEntry, 'problem' | 'isCounting'> {
  if (!whole) return { problem, isCounting: false };
  const failed = whole.problemOf(rule);
  const isCounting = rule.on && failed === null && whole.countsOf(rule) === null;
  return { problem: isCounting ? null : (failed ?? problem), isCounting };
}
