import { FormulaError } from '../../formula/values/formula-value';
import { cellAddress } from '../../sheet/address';
import type { Adviser } from './advice';

/** A formula rule whose formula gives errors, which never match. */
export const formulaErrors: Adviser = ({ evaluation: { sheet, activeRules } }) =>
  activeRules.flatMap((one) => {
    const { rule, read } = one;
    if (!rule.on || rule.when.kind !== 'formula') return [];
    const words = new Set<string>();
    const cells = sheet.order.flatMap((slot, position) =>
      read.flatMap(({ column, slots }) => {
        const value = slots.has(slot) ? one.formulaValue(column, slot) : undefined;
        if (!(value instanceof FormulaError)) return [];
        words.add(value.word);
        return cellAddress(column, position);
      }),
    );
    if (cells.length === 0) return [];
    const where = `${cells.slice(0, 3).join(', ')}${cells.length > 3 ? '...' : ''}`;
    return [
      {
        rules: [rule.id],
        cells,
        message: `The formula of “${rule.name}” gives ${[...words].join(' and ')} for ${cells.length} ${cells.length === 1 ? 'cell' : 'cells'} (${where}). An error never matches.`,
        repair: null,
      },
    ];
  });
