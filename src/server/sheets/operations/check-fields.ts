import type { FieldId } from '../../../core/sheet/ids';
import { Refusal } from '../../refusal';
import { refusalText } from '../../../texts/refusal-text';
import type { HeldSheet } from '../held-sheet';

/** The ids of the sheet's fields; throws a Refusal where a requested one is not among them. */
export async function checkFields(sheet: HeldSheet, wanted: readonly string[]): Promise<Set<FieldId>> {
  const known = new Set((await sheet.fields()).map((field) => field.id));
  if (!wanted.every((field) => known.has(field))) throw new Refusal('field-gone', refusalText('fieldHasBeenRemoved'));
  return known;
}
