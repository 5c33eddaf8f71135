import { itemAt } from '../../values/item-at';
import { cellAddress, parseRanges } from '../../sheet/address';
import { TAG } from '../../values/cell-value';
import { replaced, type Adviser } from './advice';

/** A range that stops before the data does. */
export const endsEarly: Adviser = ({ evaluation: { sheet, activeRules }, stored }) =>
  activeRules.flatMap(({ rule, read }, at) => {
    if (!rule.on || !('cells' in rule.reads) || read.length === 0) return [];
    const bottom = Math.max(...parseRanges(rule.reads.cells)!.map((range) => range.bottom));
    const missed = sheet.order.flatMap((slot, position) =>
      position > bottom && sheet.roleAt(slot) === 'record'
        ? read.flatMap(({ column }) =>
            sheet.column(column).tags[slot] === TAG.blank ? [] : cellAddress(column, position),
          )
        : [],
    );
    if (missed.length === 0) return [];
    return [
      {
        rules: [rule.id],
        cells: missed,
        message: `“${rule.name}” stops at row ${bottom + 1}, and ${missed.length} filled ${missed.length === 1 ? 'cell comes' : 'cells come'} after it. A rule that reads a field has no last row.`,
        repair: [replaced(itemAt(stored, at), { reads: { fields: read.map(({ column }) => sheet.field(column).id) } })],
      },
    ];
  });
