import type { VisibleSheet } from '../../core/sharing/sight';
import type { Operation, StoredRow } from '../../core/sheet/change';
import type { FieldId, RowId } from '../../core/sheet/ids';
import type { Sheet } from '../../core/sheet/sheet';
import type { RecordedChange } from '../../protocol/recorded-change';

/** A row as a reader gets it. */
export function sentRow(
  { id, key, role, about }: Omit<StoredRow, 'cells'>,
  sight: VisibleSheet,
  sheet: Sheet,
): StoredRow {
  const slot = sheet.findSlot(id);
  const cells = sight.columns.flatMap((column) => {
    const input = slot === undefined ? '' : sight.inputAt(column, slot);
    return input === '' ? [] : [[sheet.fields[column]!.id, input] as const];
  });
  const sent = new Set(sight.columns.map((column) => sheet.fields[column]!.id));
  const { styles, ...rest } = about ?? {};
  const kept = Object.entries(styles ?? {}).filter(([field]) => sent.has(field));
  const told = { ...rest, ...(kept.length ? { styles: Object.fromEntries(kept) } : {}) };
  return { id, key, role, cells: Object.fromEntries(cells), ...(Object.keys(told).length ? { about: told } : {}) };
}

/**
 * The part of a change that a reader without rules gets; undefined where there is none. Hidden cells are left out one
 * by one, and cells carry their present content: nothing is passed on that the sheet itself would not show.
 */
export function sentChange(
  { sequence, at, change, seen }: RecordedChange,
  sight: VisibleSheet,
  sheet: Sheet,
): RecordedChange | undefined {
  const columnOf = new Map(sight.columns.map((column) => [sheet.fields[column]!.id, column]));
  const sentCell = ({
    row,
    field,
  }: {
    readonly row: RowId;
    readonly field: FieldId;
  }): { slot: number; column: number } | undefined => {
    const [slot, column] = [sheet.findSlot(row), columnOf.get(field)];
    return slot !== undefined && column !== undefined && sight.isVisible(column, slot) ? { slot, column } : undefined;
  };
  const operations = change.operations.flatMap((operation): Operation[] => {
    switch (operation.kind) {
      case 'set-cells': {
        const cells = operation.cells.flatMap((cell) => {
          const sent = sentCell(cell);
          return sent ? { row: cell.row, field: cell.field, input: sight.inputAt(sent.column, sent.slot) } : [];
        });
        return cells.length ? [{ kind: 'set-cells', cells }] : [];
      }
      case 'set-styles': {
        const cells = operation.cells.filter(({ field }) => columnOf.has(field));
        return cells.length ? [{ kind: 'set-styles', cells }] : [];
      }
      case 'insert-rows':
        return [{ kind: 'insert-rows', rows: operation.rows.map((row) => sentRow(row, sight, sheet)) }];
      case 'change-rows': {
        // A row in another role may be for others to fill in, or no longer: the visible content of its cells is sent
        // again.
        const cells = operation.rows.flatMap(({ id, role }) => {
          const slot = role === undefined ? undefined : sheet.findSlot(id);
          if (slot === undefined) return [];
          return sight.columns.map((column) => ({
            row: id,
            field: sheet.fields[column]!.id,
            input: sight.inputAt(column, slot),
          }));
        });
        return [operation, ...(cells.length ? [{ kind: 'set-cells' as const, cells }] : [])];
      }
      case 'remove-rows':
        return [operation];
      // What fields, parts and rules are to a reader is cut out of the sheet again where it changes.
      case 'put-fields':
      case 'remove-fields':
      case 'put-parts':
      case 'remove-parts':
      case 'put-rules':
      case 'remove-rules':
        return [];
    }
  });
  return operations.length
    ? { sequence, at, change: { id: change.id, operations }, ...(seen === undefined ? {} : { seen }) }
    : undefined;
}
