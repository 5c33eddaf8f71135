import { itemAt } from '../../values/item-at';
import { nearestTo } from '../../stats/profile-values';
import { numberText } from '../../values/number-text';
import { kindOf } from '../kinds/registry';
import { replaced, type Adviser } from './advice';
import { endsRead, numbersRead } from './numbers-read';

/** A threshold beyond all values, which times or over 100 would be among them: 70 typed where the cells hold 0.70. */
export const scaleMisfit: Adviser = ({ evaluation, stored }) =>
  evaluation.activeRules.flatMap((running, at) => {
    const { rule } = running;
    const thresholds = rule.on && !running.problem ? kindOf(rule.when).thresholds(rule.when) : [];
    if (thresholds.length === 0) return [];
    const { least, greatest } = endsRead(evaluation.sheet, running.read);
    const isAmong = (value: number) => value >= least && value <= greatest;
    for (const threshold of thresholds) {
      const { value } = threshold;
      const fitting = isAmong(value) || value === 0 ? undefined : [value / 100, value * 100].find(isAmong);
      if (fitting === undefined) continue;
      const { below, above } = nearestTo(numbersRead(evaluation.sheet, running.read), fitting);
      return [
        {
          rules: [rule.id],
          cells: [],
          message: `“${rule.name}” compares with ${numberText(value)}, but its cells hold numbers such as ${numberText(Number.isNaN(below) ? above : below)}. Did you mean ${numberText(fitting)}?`,
          repair: [replaced(itemAt(stored, at), { when: threshold.with(fitting) })],
        },
      ];
    }
    return [];
  });
