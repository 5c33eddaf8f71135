import type { CellInput } from '../../sheet/change';
import { cellAddress } from '../../sheet/address';
import { TAG } from '../../values/cell-value';
import { readNumber } from '../../values/read-number';
import type { Adviser } from './advice';

/** Kinds that look at texts as such. */
const READS_TEXT: ReadonlySet<string> = new Set([
  'text',
  'state',
  'repeat',
  'category',
  'key',
  'formula',
  'change',
  'date',
]);

/** Texts that read as numbers among the cells of a rule that looks at numbers: it passes them over. */
export const numbersAsText: Adviser = ({ evaluation: { sheet, activeRules } }) =>
  activeRules.flatMap(({ rule, read }) => {
    if (!rule.on || READS_TEXT.has(rule.when.kind)) return [];
    const cells: string[] = [];
    const inputs: CellInput[] = [];
    for (const { column, slots } of read) {
      const store = sheet.column(column);
      sheet.order.forEach((slot, position) => {
        if (!slots.has(slot) || store.tags[slot] !== TAG.text || sheet.roleAt(slot) !== 'record') return;
        const { shown } = store.entryAt(slot);
        if (!readNumber(shown.trim())) return;
        cells.push(cellAddress(column, position));
        if (!store.formulas.has(slot)) inputs.push({ ...sheet.cellIds(column, slot), input: shown.trim() });
      });
    }
    if (cells.length === 0) return [];
    const many = cells.length === 1 ? 'one cell holds a number' : `${cells.length} cells hold numbers`;
    return [
      {
        rules: [rule.id],
        cells,
        message: `“${rule.name}” passes over ${cells.slice(0, 3).join(', ')}${cells.length > 3 ? '...' : ''}: ${many} as text.`,
        repair: inputs.length ? [{ kind: 'set-cells' as const, cells: inputs }] : null,
      },
    ];
  });
