import { generateNKeysBetween } from 'fractional-indexing';
import { itemAt, lastItem } from '../values/item-at';
import { isFormulaInput } from '../values/is-formula-input';
import { isSameInEachRow, keepReferences, showReferences } from '../formula/resolve/keep-references';
import { shiftFormula } from '../formula/syntax/rewrite-references';
import type { Style } from '../looks/style';
import type { CellRange } from '../sheet/address';
import type { CellInput, CellStyle, Operation, StoredRow } from '../sheet/change';
import { newField } from '../sheet/field';
import { layoutAfter } from '../sheet/layout/layout-move';
import type { CellIds } from '../sheet/ids';
import type { Sheet } from '../sheet/sheet';
import { checkSize, countWords, type Editor, type EditTools } from './editor';
import { seriesFrom } from './series';

/** One cell of what is pasted. */
export interface PastedCell {
  /** As it would be typed; absent leaves the cell as it is. */
  readonly input?: string;
  /** Instead of `input`: as a sheet stores it, with references by id. */
  readonly kept?: string;
  readonly style?: Style | null;
  /** How far relative references of its formula are moved. */
  readonly by?: { readonly columns: number; readonly rows: number };
}

interface Paste {
  readonly column: number;
  readonly position: number;
  readonly rows: readonly (readonly PastedCell[])[];
}

/** Pastes a table of cells, and makes the sheet larger where it reaches beyond the last row or field. */
export const pasteCells: Editor<Paste> = {
  operations(sheet, { column, position, rows }, tools) {
    const width = tableWidth(rows);
    if (width === 0) return [];
    checkSize({ left: column, top: position, right: column + width - 1, bottom: position + rows.length - 1 });
    const room = roomFor(sheet, { columns: column + width, rows: position + rows.length }, tools);
    const places = layoutAfter(sheet, room);
    const cells: CellInput[] = [];
    const styles: CellStyle[] = [];
    rows.forEach((pasted, down) =>
      pasted.forEach(({ input, kept, style, by }, across) => {
        const at = { row: itemAt(places.rows, position + down), field: itemAt(places.fields, column + across) };
        if (kept !== undefined) cells.push({ ...at, input: kept });
        else if (input !== undefined) {
          const moved = by && isFormulaInput(input) ? shiftFormula(input, by.columns, by.rows) : input;
          cells.push({ ...at, input: keepReferences(moved, sheet, { row: at.row, places }) });
        }
        // Most cells have no style and get none: nothing to record.
        if (style !== undefined && (style !== null || hasStyle(sheet, at))) styles.push({ ...at, style });
      }),
    );
    return [
      ...room,
      ...(cells.length ? [{ kind: 'set-cells' as const, cells }] : []),
      ...(styles.length ? [{ kind: 'set-styles' as const, cells: styles }] : []),
    ];
  },
  says: ({ rows }) =>
    `paste ${countWords(
      rows.reduce((sum, row) => sum + row.length, 0),
      'cell',
    )}`,
};

function hasStyle(sheet: Sheet, ids: CellIds): boolean {
  const cell = sheet.findCell(ids);
  return cell !== undefined && sheet.column(cell.column).styles.has(cell.slot);
}

/** Rows and fields that a sheet lacks to be so large. */
function roomFor(sheet: Sheet, size: { columns: number; rows: number }, { newId }: EditTools): Operation[] {
  const [fields, rows] = [size.columns - sheet.fields.length, size.rows - sheet.rowCount];
  const lastRow = sheet.order.at(-1);
  return [
    ...(fields > 0
      ? [
          {
            kind: 'put-fields' as const,
            fields: generateNKeysBetween(sheet.fields.at(-1)?.key ?? null, null, fields).map((key) =>
              newField(newId(), key),
            ),
          },
        ]
      : []),
    ...(rows > 0
      ? [
          {
            kind: 'insert-rows' as const,
            rows: generateNKeysBetween(lastRow === undefined ? null : sheet.rowKey(lastRow), null, rows).map(
              (key): StoredRow => ({
                id: newId(),
                key,
                role: 'record',
                cells: {},
              }),
            ),
          },
        ]
      : []),
  ];
}

/** Empties cells. */
export const clearCells: Editor<{ readonly area: CellRange }> = {
  operations(sheet, { area }) {
    const cells: CellInput[] = [];
    for (const slot of sheet.order.slice(area.top, area.bottom + 1))
      for (let column = area.left; column <= area.right; column++)
        if (sheet.column(column).inputAt(slot) !== '') cells.push({ ...sheet.cellIds(column, slot), input: '' });
    return cells.length ? [{ kind: 'set-cells', cells }] : [];
  },
  says: ({ area }) => `empty ${countWords((area.right - area.left + 1) * (area.bottom - area.top + 1), 'cell')}`,
};

/**
 * Continues the cells of one area over a larger one that has them at its edge: series go on, formulas move along,
 * styles come with them.
 */
export const fillCells: Editor<{ readonly from: CellRange; readonly to: CellRange }> = {
  operations(sheet, { from, to }, tools) {
    checkSize(to);
    if (to.left === from.left && to.right === from.right && to.top === from.top && to.bottom === from.bottom) return [];
    const vertical = to.top < from.top || to.bottom > from.bottom;
    const backwards = vertical ? to.top < from.top : to.left < from.left;
    const lines = vertical ? span(from.left, from.right) : span(from.top, from.bottom);
    const source = vertical ? span(from.top, from.bottom) : span(from.left, from.right);
    const wanted = vertical ? span(to.top, to.bottom) : span(to.left, to.right);
    const target = wanted.filter((at) => !source.includes(at));
    if (backwards) {
      source.reverse();
      target.reverse();
    }
    const filled = lines.map((line) => {
      const cells = source.map((at) =>
        sourceCell(sheet, vertical ? { column: line, position: at } : { column: at, position: line }),
      );
      const continued = seriesFrom(cells.map(({ input }) => input));
      const continuedLine = target.map((at, step): PastedCell => {
        const away = at - itemAt(source, step % source.length);
        const model = itemAt(cells, step % cells.length);
        if (vertical && model.sameInEachRow !== null) return { kept: model.sameInEachRow, style: model.style };
        const by = vertical ? { columns: 0, rows: away } : { columns: away, rows: 0 };
        return { input: continued(step), style: model.style, by };
      });
      return backwards ? continuedLine.toReversed() : continuedLine;
    });
    const first = Math.min(itemAt(target, 0), lastItem(target));
    const place = vertical ? { column: from.left, position: first } : { column: first, position: from.top };
    return pasteCells.operations(sheet, { ...place, rows: vertical ? transposed(filled) : filled }, tools);
  },
  says: () => 'fill',
};

const span = (from: number, to: number): number[] => Array.from({ length: to - from + 1 }, (_, at) => from + at);

interface SourceCell {
  readonly input: string;
  /** Its stored formula, where that is the same in every row it is copied to; null where it is not. */
  readonly sameInEachRow: string | null;
  readonly style: Style | null;
}

function sourceCell(sheet: Sheet, { column, position }: { column: number; position: number }): SourceCell {
  const slot = sheet.slotAt(position);
  const store = sheet.column(column);
  const kept = store.inputAt(slot);
  return {
    input: showReferences(kept, sheet, slot),
    sameInEachRow: isSameInEachRow(kept) ? kept : null,
    style: store.styles.get(slot) ?? null,
  };
}

/** Cells in the longest row. Rows can be too many to be handed over as arguments. */
export const tableWidth = (rows: readonly (readonly unknown[])[]): number =>
  rows.reduce((most, row) => Math.max(most, row.length), 0);

/** Rows become columns. What a shorter row lacks leaves its cell as it is. */
export const transposed = (rows: readonly (readonly PastedCell[])[]): PastedCell[][] =>
  Array.from({ length: tableWidth(rows) }, (_, at) => rows.map((row) => row[at] ?? {}));
