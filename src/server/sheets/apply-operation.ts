import type { CellInput, Operation, StoredRow } from '../../core/sheet/change';
import type { RowId, SheetId } from '../../core/sheet/ids';
import type { Transaction } from '../database';
import { deleteRows } from '../sql/row/delete-rows';
import { findRows } from '../sql/row/find-rows';
import { insertRows } from '../sql/row/insert-rows';
import { updateCells } from '../sql/row/update-cells';
import { deleteRules } from '../sql/rule/delete-rules';
import { putRule } from '../sql/rule/put-rule';
import { readRules } from '../sql/rule/read-rules';
import { readFields } from '../sql/sheet/read-fields';
import { Refusal } from './refusal';

/** Checks an operation against the stored sheet, applies it, and gives the operations that take it back. The caller holds the sheet's head. */
export async function applyOperation(sql: Transaction, sheet: SheetId, operation: Operation): Promise<Operation[]> {
  switch (operation.kind) {
    case 'set-cells':
      return setCells(sql, sheet, operation.cells);
    case 'insert-rows':
      await checkFields(
        sql,
        sheet,
        operation.rows.flatMap((row) => Object.keys(row.cells)),
      );
      if (
        (
          await findRows(
            sql,
            sheet,
            operation.rows.map((row) => row.id),
          )
        ).length
      )
        throw new Refusal('row-exists', 'One of these rows is in the sheet already');
      await insertRows(sql, sheet, operation.rows);
      return [{ kind: 'remove-rows', rows: operation.rows.map((row) => row.id) }];
    case 'remove-rows': {
      const rows = await findRows(sql, sheet, operation.rows);
      await deleteRows(sql, sheet, operation.rows);
      return rows.length ? [{ kind: 'insert-rows', rows }] : [];
    }
    case 'put-rules': {
      const before = await readRules(
        sql,
        sheet,
        operation.rules.map((rule) => rule.id),
      );
      const known = new Set(before.map((rule) => rule.id));
      for (const rule of operation.rules) await putRule(sql, sheet, rule);
      const added = operation.rules.filter((rule) => !known.has(rule.id)).map((rule) => rule.id);
      return [
        ...(added.length ? [{ kind: 'remove-rules' as const, rules: added }] : []),
        ...(before.length ? [{ kind: 'put-rules' as const, rules: before }] : []),
      ];
    }
    case 'remove-rules': {
      const rules = await readRules(sql, sheet, operation.rules);
      await deleteRules(sql, sheet, operation.rules);
      return rules.length ? [{ kind: 'put-rules', rules }] : [];
    }
  }
}

async function setCells(sql: Transaction, sheet: SheetId, cells: readonly CellInput[]): Promise<Operation[]> {
  await checkFields(
    sql,
    sheet,
    cells.map((cell) => cell.field),
  );
  const found = await findRows(sql, sheet, Array.from(new Set(cells.map((cell) => cell.row))));
  const rows = new Map<RowId, StoredRow>(found.map((row) => [row.id, row]));
  const fresh = new Map<RowId, Record<string, string>>();
  const inverse: CellInput[] = [];
  for (const { row, field, input } of cells) {
    const stored = rows.get(row);
    if (!stored) throw new Refusal('row-gone', 'The record has been removed by someone else, so this entry has nowhere to go');
    const inputs = fresh.get(row) ?? { ...stored.cells };
    fresh.set(row, inputs);
    inverse.push({ row, field, input: inputs[field] ?? '' });
    if (input === '') delete inputs[field];
    else inputs[field] = input;
  }
  await updateCells(
    sql,
    sheet,
    [...fresh].map(([id, inputs]) => ({ id, cells: inputs })),
  );
  return [{ kind: 'set-cells', cells: inverse.reverse() }];
}

async function checkFields(sql: Transaction, sheet: SheetId, wanted: readonly string[]): Promise<void> {
  const known = new Set((await readFields(sql, sheet)).map((field) => field.id));
  if (!wanted.every((field) => known.has(field)))
    throw new Refusal('field-gone', 'The field has been removed by someone else, so this entry has nowhere to go');
}
