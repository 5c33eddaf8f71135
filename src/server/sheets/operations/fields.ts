import type { Operation } from '../../../core/sheet/change';
import type { FieldId } from '../../../core/sheet/ids';
import type { OperationOf } from '../../../core/sheet/operations/operation-kind';
import { Refusal } from '../../refusal';
import { deleteFields, putField, readFields } from '../../sql/field';
import { findRowsWithFields } from '../../sql/row';
import type { HeldSheet } from '../held-sheet';
import { setCells, setStyles } from './cells';
import { keyedOperations } from './keyed';
import { refusalText } from '../../../texts/refusal-text';

const keyed = keyedOperations({
  read: readFields,
  write: putField,
  remove: deleteFields,
  itemsIn: (operation) => (operation.kind === 'put-fields' ? operation.fields : []),
  idsIn: (operation) => (operation.kind === 'remove-fields' ? operation.fields : []),
  put: (fields) => ({ kind: 'put-fields' as const, fields }),
  takeOut: (fields) => ({ kind: 'remove-fields' as const, fields }),
});

/** Fields take the contents of their cells along when they go. */
export const storedFields = {
  put: keyed.put,
  remove: {
    ...keyed.remove,
    apply: (sheet: HeldSheet, { fields }: OperationOf<'remove-fields'>) => removeFields(sheet, fields),
  },
};

async function removeFields(sheet: HeldSheet, ids: readonly FieldId[]): Promise<Operation[]> {
  const fields = await sheet.fields();
  const gone = fields.filter(({ id }) => ids.includes(id));
  if (gone.length === fields.length) throw new Refusal('bad-request', refusalText('sheetKeepsLeastOne'));
  const held = await findRowsWithFields(await sheet.settled(), sheet.id, ids);
  const cells = held.flatMap(({ id, cells: inputs }) =>
    gone.flatMap(({ id: field }) => (inputs[field] ? { row: id, field, input: inputs[field] } : [])),
  );
  const styles = held.flatMap(({ id, about }) =>
    gone.flatMap(({ id: field }) => (about?.styles?.[field] ? { row: id, field, style: about.styles[field] } : [])),
  );
  if (cells.length)
    await setCells(
      sheet,
      cells.map((cell) => ({ ...cell, input: '' })),
    );
  if (styles.length)
    await setStyles(
      sheet,
      styles.map((cell) => ({ ...cell, style: null })),
    );
  await deleteFields(await sheet.settled(), sheet.id, ids);
  return [
    ...(gone.length ? [{ kind: 'put-fields' as const, fields: gone }] : []),
    ...(cells.length ? [{ kind: 'set-cells' as const, cells }] : []),
    ...(styles.length ? [{ kind: 'set-styles' as const, cells: styles }] : []),
  ];
}
