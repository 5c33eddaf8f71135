import type { FieldId, SheetId } from '../../../core/sheet/ids';
import type { Transaction } from '../../database';
import { Refusal } from '../../refusal';
import { readFields } from '../../sql/field';
import { refusalText } from '../../../texts/refusal-text';

/** The ids of the sheet's fields; throws a Refusal where a requested one is not among them. */
export async function checkFields(tx: Transaction, sheet: SheetId, wanted: readonly string[]): Promise<Set<FieldId>> {
  const known = new Set((await readFields(tx, sheet)).map((field) => field.id));
  if (!wanted.every((field) => known.has(field))) throw new Refusal('field-gone', refusalText('fieldHasBeenRemoved'));
  return known;
}
