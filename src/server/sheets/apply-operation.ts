import { putRules, rulesPutBy } from '../../core/rules/shape/stored-rule';
import type { CellInput, CellStyle, Operation, RowChange, StoredRow } from '../../core/sheet/change';
import type { Field } from '../../core/sheet/field';
import type { FieldId, RowId, SheetId } from '../../core/sheet/ids';
import type { Transaction } from '../database';
import { deleteFields, putField, readFields } from '../sql/field';
import { deleteParts, putPart, readParts } from '../sql/part';
import { deleteRows, findRows, findRowsWithFields, insertRows, updateRows } from '../sql/row';
import { deleteRules, putRule, readRules } from '../sql/rule';
import { EditedRows } from './edited-rows';
import { Refusal } from '../refusal';

/**
 * Checks an operation against the stored sheet, applies it, and gives the operations that take it back. The caller
 * holds the sheet's head.
 */
export async function applyOperation(sql: Transaction, sheet: SheetId, operation: Operation): Promise<Operation[]> {
  switch (operation.kind) {
    case 'set-cells':
      return setCells(sql, sheet, operation.cells);
    case 'set-styles':
      return setStyles(sql, sheet, operation.cells);
    case 'insert-rows':
      return addRows(sql, sheet, operation.rows);
    case 'remove-rows': {
      const rows = await findRows(sql, sheet, operation.rows);
      await deleteRows(sql, sheet, operation.rows);
      return rows.length ? [{ kind: 'insert-rows', rows }] : [];
    }
    case 'change-rows':
      return changeRows(sql, sheet, operation.rows);
    case 'put-fields':
      return putFields(sql, sheet, operation.fields);
    case 'remove-fields':
      return removeFields(sql, sheet, operation.fields);
    case 'put-parts': {
      const before = await readParts(sql, sheet, idsOf(operation.parts));
      for (const part of operation.parts) await putPart(sql, sheet, part);
      const added = addedTo(before, operation.parts);
      return [
        ...(added.length ? [{ kind: 'remove-parts' as const, parts: added }] : []),
        ...(before.length ? [{ kind: 'put-parts' as const, parts: before }] : []),
      ];
    }
    case 'remove-parts': {
      const parts = await readParts(sql, sheet, operation.parts);
      await deleteParts(sql, sheet, operation.parts);
      return parts.length ? [{ kind: 'put-parts', parts }] : [];
    }
    case 'put-rules': {
      const before = await readRules(sql, sheet, idsOf(operation.rules));
      for (const rule of rulesPutBy(operation)) await putRule(sql, sheet, rule);
      const added = addedTo(before, operation.rules);
      return [
        ...(added.length ? [{ kind: 'remove-rules' as const, rules: added }] : []),
        ...(before.length ? [putRules(before)] : []),
      ];
    }
    case 'remove-rules': {
      const rules = await readRules(sql, sheet, operation.rules);
      await deleteRules(sql, sheet, operation.rules);
      return rules.length ? [putRules(rules)] : [];
    }
  }
}

const idsOf = (items: readonly { readonly id: string }[]): string[] => items.map(({ id }) => id);

/** Ids of items that were not there before. */
const addedTo = (before: readonly { readonly id: string }[], items: readonly { readonly id: string }[]): string[] => {
  const known = new Set(idsOf(before));
  return idsOf(items).filter((id) => !known.has(id));
};

async function addRows(sql: Transaction, sheet: SheetId, rows: readonly StoredRow[]): Promise<Operation[]> {
  await checkFields(
    sql,
    sheet,
    rows.flatMap((row) => Object.keys(row.cells)),
  );
  if ((await findRows(sql, sheet, idsOf(rows))).length)
    throw new Refusal('row-exists', 'One of these rows is in the sheet already');
  await insertRows(sql, sheet, rows);
  return [{ kind: 'remove-rows', rows: idsOf(rows) }];
}

async function setCells(sql: Transaction, sheet: SheetId, cells: readonly CellInput[]): Promise<Operation[]> {
  const known = await checkFields(
    sql,
    sheet,
    cells.filter(({ was }) => was === undefined).map((cell) => cell.field),
  );
  const rows = new EditedRows(await findRows(sql, sheet, rowsOf(cells)));
  const holds = (row: RowId, field: FieldId): string | undefined => {
    const found = rows.find(row);
    return found && known.has(field) ? (found.cells[field] ?? '') : undefined;
  };
  const inverse: CellInput[] = [];
  for (const { row, field, input, was } of cells) {
    // Side effects of a change never make it fail.
    if (was !== undefined && holds(row, field) !== was) continue;
    const { cells: inputs } = rows.get(row);
    inverse.push({ row, field, input: inputs[field] ?? '', ...(was === undefined ? {} : { was: input }) });
    const { [field]: _, ...others } = inputs;
    rows.put(row, { cells: input === '' ? others : { ...others, [field]: input } });
  }
  await updateRows(sql, sheet, rows.edited());
  return inverse.length ? [{ kind: 'set-cells', cells: inverse.reverse() }] : [];
}

async function setStyles(sql: Transaction, sheet: SheetId, cells: readonly CellStyle[]): Promise<Operation[]> {
  await checkFields(
    sql,
    sheet,
    cells.map((cell) => cell.field),
  );
  const rows = new EditedRows(await findRows(sql, sheet, rowsOf(cells)));
  const inverse: CellStyle[] = [];
  for (const { row, field, style } of cells) {
    const { styles = {}, ...about } = rows.get(row).about ?? {};
    inverse.push({ row, field, style: styles[field] ?? null });
    const { [field]: _, ...others } = styles;
    rows.putAbout(row, { ...about, styles: style ? { ...others, [field]: style } : others });
  }
  await updateRows(sql, sheet, rows.edited());
  return [{ kind: 'set-styles', cells: inverse.reverse() }];
}

const rowsOf = (cells: readonly { readonly row: RowId }[]): RowId[] => Array.from(new Set(cells.map(({ row }) => row)));

async function changeRows(sql: Transaction, sheet: SheetId, changes: readonly RowChange[]): Promise<Operation[]> {
  const rows = new EditedRows(await findRows(sql, sheet, idsOf(changes)));
  const inverse: RowChange[] = [];
  for (const { id, key, role, ...about } of changes) {
    const row = rows.get(id);
    const known = row.about ?? {};
    const before = Object.fromEntries(
      Object.keys(about).map((name) => [name, known[name as keyof typeof about] ?? null]),
    );
    inverse.push({
      id,
      ...(key === undefined ? {} : { key: row.key }),
      ...(role === undefined ? {} : { role: row.role }),
      ...before,
    });
    rows.put(id, { key: key ?? row.key, role: role ?? row.role });
    rows.putAbout(id, { ...known, ...about });
  }
  await updateRows(sql, sheet, rows.edited());
  return [{ kind: 'change-rows', rows: inverse.reverse() }];
}

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

/** The ids of the sheet's fields; throws a Refusal where a requested one is not among them. */
async function checkFields(sql: Transaction, sheet: SheetId, wanted: readonly string[]): Promise<Set<FieldId>> {
  const known = new Set((await readFields(sql, sheet)).map((field) => field.id));
  if (!wanted.every((field) => known.has(field)))
    throw new Refusal('field-gone', 'The field has been removed by someone else, so this entry has nowhere to go');
  return known;
}
