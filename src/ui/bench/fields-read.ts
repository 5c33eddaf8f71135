import { parseRanges } from '../../core/sheet/address';
import { itemAt } from '../../core/values/item-at';
import type { Reads } from '../../core/rules/terms';
import type { FieldId } from '../../core/sheet/ids';
import type { ShownField } from '../../protocol/sheet-view';

/** The fields that a rule reads: those named, or those in which its ranges begin; the first one where there are none. */
export function fieldsRead(reads: Reads, fields: readonly ShownField[]): readonly FieldId[] {
  if ('fields' in reads) return reads.fields;
  const columns = (parseRanges(reads.cells) ?? []).map(({ left }) => left);
  const found = fields.filter((_, at) => columns.includes(at)).map(({ id }) => id);
  return found.length > 0 ? found : [itemAt(fields, 0).id];
}
