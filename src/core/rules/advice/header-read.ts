import { itemAt } from '../../values/item-at';
import { cellAddress } from '../../sheet/address';
import { replaced, type Adviser } from './advice';

/** A rule that reads the header: labels are judged with the records. */
export const headerRead: Adviser = ({ evaluation: { sheet, activeRules }, stored }) =>
  activeRules.flatMap(({ rule, read }, at) => {
    if (!rule.on) return [];
    const cells: string[] = [];
    for (const { column, slots } of read)
      sheet.slotsWithRoles(['header']).forEach((slot) => {
        if (slots.has(slot)) cells.push(cellAddress(column, sheet.positionOf(slot)));
      });
    if (cells.length === 0) return [];
    const { reads } = rule;
    return [
      {
        rules: [rule.id],
        cells,
        message: `“${rule.name}” reads the header (${cells.join(', ')}) along with the records.`,
        repair: 'fields' in reads ? [replaced(itemAt(stored, at), { reads: { fields: reads.fields } })] : null,
      },
    ];
  });
