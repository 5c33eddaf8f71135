import { itemAt } from '../values/item-at';
import type { CellInput, Operation, StoredRow } from '../sheet/change';
import type { FieldId } from '../sheet/ids';
import { isSameInput } from '../sheet/is-same-input';
import { keysAt } from '../sheet/layout/keys-at';
import { labelIndex } from '../sheet/label-index';
import { recordKey } from '../sheet/record-key';
import type { Sheet } from '../sheet/sheet';
import { readInput } from '../values/read-input';

/** Records of a file: what would be typed for each, by label. */
export interface NewerRecords {
  readonly labels: readonly string[];
  /** In the order of the labels. */
  readonly records: readonly (readonly string[])[];
}

export interface RefreshHow {
  /** The fields whose values say which record is which. */
  readonly key: readonly FieldId[];
  /** Whether records that the file does not have are removed. */
  readonly removes: boolean;
}

/** A cell that holds something else in the file. */
export interface RefreshedCell {
  /** The name of the record: the values of the key fields. */
  readonly record: string;
  readonly label: string;
  readonly before: string;
  readonly after: string;
}

/** The effect of refreshing. */
export interface Refresh {
  readonly operations: readonly Operation[];
  readonly changed: readonly RefreshedCell[];
  readonly added: number;
  readonly removed: number;
  /** Records here that the file does not have, removed or not. */
  readonly missing: number;
  /** Records of the file without a value in the key fields, or with one that another has: they are skipped. */
  readonly passedOver: number;
}

/**
 * The fields that a file and a sheet both have, by the file's columns; undefined where the sheet has none of that
 * label.
 */
export function sharedFields(sheet: Sheet, labels: readonly string[]): (FieldId | undefined)[] {
  const find = labelIndex(sheet);
  return labels.map((label) => (label.trim() === '' ? undefined : find(label)));
}

/**
 * The operations, as one change, that update a sheet from a newer file: records are matched by their key, others are
 * added at the end, and missing ones removed where asked for. Cells with formulas stay, on both sides; a cell whose
 * value is the same stays as it was typed.
 */
export function refreshFrom(
  sheet: Sheet,
  { labels, records }: NewerRecords,
  { key, removes, newId }: RefreshHow & { readonly newId: () => string },
): Refresh {
  const fields = sharedFields(sheet, labels);
  const keyColumns = key.map((field) => fields.indexOf(field));
  const bySlot = slotsByKey(sheet, key);
  const nameOf = (slot: number) => key.map((field) => sheet.column(sheet.findColumn(field)!).inputAt(slot)).join(', ');
  const met = new Set<number>();
  const seen = new Set<string>();
  const cells: CellInput[] = [];
  const changed: RefreshedCell[] = [];
  const fresh: (readonly string[])[] = [];
  let passedOver = 0;
  for (const record of records) {
    const own = recordKey(keyColumns.map((column) => record[column]));
    if (own === null || seen.has(own)) {
      passedOver++;
      continue;
    }
    seen.add(own);
    const slot = bySlot.get(own);
    if (slot === undefined) {
      fresh.push(record);
      continue;
    }
    met.add(slot);
    fields.forEach((field, at) => {
      const column = field === undefined ? undefined : sheet.findColumn(field);
      if (field === undefined || column === undefined || key.includes(field)) return;
      const store = sheet.column(column);
      const [before, after] = [store.inputAt(slot), record[at] ?? ''];
      if (store.formulas.has(slot) || isFormula(after) || isSameInput(before, after)) return;
      cells.push({ row: sheet.rowId(slot), field, input: after });
      changed.push({ record: nameOf(slot), label: itemAt(labels, at), before, after });
    });
  }
  const missing = [...bySlot.values()].filter((slot) => !met.has(slot));
  const rows = fresh.map((record) => newCells(record, fields));
  return {
    operations: refreshOperations(sheet, { cells, rows, removed: removes ? missing : [], newId }),
    changed,
    added: rows.length,
    removed: removes ? missing.length : 0,
    missing: missing.length,
    passedOver,
  };
}

/** The cells of a record that is new to a sheet. */
const newCells = (record: readonly string[], fields: readonly (FieldId | undefined)[]): Record<FieldId, string> =>
  Object.fromEntries(
    fields.flatMap((field, at) =>
      field === undefined || !record[at] || isFormula(record[at]) ? [] : [[field, record[at]]],
    ),
  );

interface Refreshed {
  readonly cells: readonly CellInput[];
  /** The cells of each new record. */
  readonly rows: readonly Readonly<Record<FieldId, string>>[];
  /** Slots of records to be removed. */
  readonly removed: readonly number[];
  readonly newId: () => string;
}

function refreshOperations(sheet: Sheet, { cells, rows, removed, newId }: Refreshed): Operation[] {
  // New records follow the last one that holds something.
  const last = sheet.order.findLastIndex(
    (slot) => sheet.roleAt(slot) !== 'record' || sheet.columns.some((store) => store.inputAt(slot) !== ''),
  );
  const keys = keysAt(
    sheet.order.map((slot) => ({ key: sheet.rowKey(slot) })),
    last + 1,
    rows.length,
  );
  const added = rows.map((given, at): StoredRow => ({
    id: newId(),
    key: itemAt(keys, at),
    role: 'record',
    cells: given,
  }));
  return [
    ...(cells.length ? [{ kind: 'set-cells' as const, cells }] : []),
    ...(added.length ? [{ kind: 'insert-rows' as const, rows: added }] : []),
    ...(removed.length ? [{ kind: 'remove-rows' as const, rows: removed.map((slot) => sheet.rowId(slot)) }] : []),
  ];
}

/** The records of a sheet by their key, each the first from the top. */
function slotsByKey(sheet: Sheet, key: readonly FieldId[]): Map<string, number> {
  const columns = key.flatMap((field) => sheet.findColumn(field) ?? []);
  const found = new Map<string, number>();
  for (const slot of sheet.order) {
    if (sheet.roleAt(slot) !== 'record') continue;
    const own = recordKey(columns.map((column) => sheet.column(column).inputAt(slot)));
    if (own !== null && !found.has(own)) found.set(own, slot);
  }
  return found;
}

const isFormula = (input: string): boolean => readInput(input).isFormula === true;
