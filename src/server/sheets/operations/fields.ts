import type { Operation } from '../../../core/sheet/change';
import type { Field } from '../../../core/sheet/field';
import type { FieldId, SheetId } from '../../../core/sheet/ids';
import type { OperationOf } from '../../../core/sheet/operations/operation-kind';
import type { Transaction } from '../../database';
import { Refusal } from '../../refusal';
import { deleteFields, putField, readFields } from '../../sql/field';
import { findRowsWithFields } from '../../sql/row';
import { setCells, setStyles } from './cells';
import { addedTo, idsOf, leftAlone } from './keyed';
import type { StoredOperation } from './stored-operation';

export const storedFields: StoredOperation<OperationOf<'put-fields'>> = {
  apply: (tx, sheet, { fields }) => putFields(tx, sheet, fields),
  async unchangedSince(tx, sheet, { operation, operations }) {
    const now = await readFields(tx, sheet, idsOf(operation.fields));
    const fields = leftAlone(operation.fields, now, { name: 'fields', operations });
    return fields.length ? [{ ...operation, fields }] : [];
  },
};

export const storedFieldRemoval: StoredOperation<OperationOf<'remove-fields'>> = {
  apply: (tx, sheet, { fields }) => removeFields(tx, sheet, fields),
  async unchangedSince(tx, sheet, { operation, operations }) {
    const now = await readFields(tx, sheet, operation.fields);
    const fields = leftAlone(operation.fields, now, { name: 'fields', operations });
    return fields.length ? [{ ...operation, fields }] : [];
  },
};

async function putFields(sql: Transaction, sheet: SheetId, fields: readonly Field[]): Promise<Operation[]> {
  const before = await readFields(sql, sheet, idsOf(fields));
  for (const field of fields) await putField(sql, sheet, field);
  const added = addedTo(before, fields);
  return [
    ...(added.length ? [{ kind: 'remove-fields' as const, fields: added }] : []),
    ...(before.length ? [{ kind: 'put-fields' as const, fields: before }] : []),
  ];
}

async function removeFields(sql: Transaction, sheet: SheetId, ids: readonly FieldId[]): Promise<Operation[]> {
  const fields = await readFields(sql, sheet);
  const gone = fields.filter(({ id }) => ids.includes(id));
  if (gone.length === fields.length)
    throw new Refusal('bad-request', 'A sheet keeps at least one field, so not all of them can be removed');
  const held = await findRowsWithFields(sql, sheet, ids);
  const cells = held.flatMap(({ id, cells: inputs }) =>
    gone.flatMap(({ id: field }) => (inputs[field] ? { row: id, field, input: inputs[field] } : [])),
  );
  const styles = held.flatMap(({ id, about }) =>
    gone.flatMap(({ id: field }) => (about?.styles?.[field] ? { row: id, field, style: about.styles[field] } : [])),
  );
  if (cells.length)
    await setCells(
      sql,
      sheet,
      cells.map((cell) => ({ ...cell, input: '' })),
    );
  if (styles.length)
    await setStyles(
      sql,
      sheet,
      styles.map((cell) => ({ ...cell, style: null })),
    );
  await deleteFields(sql, sheet, ids);
  return [
    ...(gone.length ? [{ kind: 'put-fields' as const, fields: gone }] : []),
    ...(cells.length ? [{ kind: 'set-cells' as const, cells }] : []),
    ...(styles.length ? [{ kind: 'set-styles' as const, cells: styles }] : []),
  ];
}
