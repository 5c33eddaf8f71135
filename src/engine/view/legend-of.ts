import type { BitSet } from '../../core/values/bit-set';
import { itemAt } from '../../core/values/item-at';
import { wholeSentence } from '../../core/rules/shape/sentence-words';
import { columnLetters } from '../../core/sheet/address';
import type { Sheet } from '../../core/sheet/sheet';
import { fieldFormat } from '../../core/sheet/shown-cell';
import type { LegendEntry, ShownField } from '../../protocol/sheet-view';
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
  return replica.evaluation.activeRules.map((running, at) => ({
    read: running.readCount(countOf),
    matched: running.shownCount(),
    id: running.rule.id,
    key: itemAt(stored, at).key,
    rule: running.rule,
    outcomes: running.outcomeCounts(),
    problem: running.problem,
    isDraft: running.rule.id === replica.draftId,
    isPersonal: replica.personal.some(({ id }) => id === running.rule.id),
    sentence: wholeSentence(fields, running.rule),
  }));
}
