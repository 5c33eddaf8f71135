import { kindOf } from '../kinds/registry';
import type { RunningRule } from '../evaluate/running-rule';
import { TAG } from '../../values/cell-value';
import type { Sheet } from '../../sheet/sheet';
import type { Adviser } from './advice';

const counted = ({ rule, problem }: RunningRule): boolean =>
  rule.on && !problem && kindOf(rule.when).outcomes === 'match';

/** A rule that matches nothing although there is something to match. */
export const noMatch: Adviser = ({ evaluation: { sheet, activeRules } }) =>
  activeRules.flatMap((one) => {
    const filled = filledCount(sheet, one);
    if (!counted(one) || filled === 0 || (one.outcomeCounts()[0] ?? 0) > 0) return [];
    return [
      {
        rules: [one.rule.id],
        cells: [],
        message: `“${one.rule.name}” matches none of the ${filled} cells it reads.`,
        repair: null,
      },
    ];
  });

/** A rule that matches everything: it distinguishes nothing. */
export const allMatch: Adviser = ({ evaluation: { sheet, activeRules } }) =>
  activeRules.flatMap((one) => {
    const filled = filledCount(sheet, one);
    if (!counted(one) || filled < 2 || (one.outcomeCounts()[0] ?? 0) < filled || one.rule.when.kind === 'state')
      return [];
    return [
      {
        rules: [one.rule.id],
        cells: [],
        message: `“${one.rule.name}” matches all of the ${filled} cells it reads, so it tells nothing apart.`,
        repair: null,
      },
    ];
  });

/** Cells read that are not blank. */
function filledCount(sheet: Sheet, { read }: RunningRule): number {
  let count = 0;
  for (const { column, slots } of read) {
    const { tags } = sheet.column(column);
    slots.forEach((slot) => {
      if (tags[slot] !== TAG.blank) count++;
    });
  }
  return count;
}
