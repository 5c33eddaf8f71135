import { itemAt } from '../../values/item-at';
import { plainTree } from '../../formula/resolve/plain-tree';
import type { FormulaNode } from '../../formula/syntax/formula-tree';
import type { LookProperties } from '../../looks/look';
import { groundOf } from '../../looks/readable-text';
import type { Fill } from '../../looks/look';
import { mergeStyles, type Style } from '../../looks/style';
import type { ResolvedLook } from '../../rules/evaluate/resolver';
import type { RunningRule } from '../../rules/evaluate/running-rule';
import type { CellRange } from '../../sheet/address';
import { frozenColumns } from '../../sheet/layout/frozen-columns';
import { mergeAreas } from '../../sheet/layout/merge-areas';
import { wholeArea, type ExportSource } from '../export-source';
import { requireHeld } from '../too-many-cells';
import { formatAt } from '../../sheet/shown-cell';
import type { Sheet } from '../../sheet/sheet';
import type { CellValue } from '../../values/cell-value';
import { plainDateFormat } from '../../values/dates/date-serial';

/** A cell on its way into a workbook. */
export interface WrittenCell {
  readonly column: number;
  readonly value: CellValue;
  /** Its formula with plain references; absent where it has none, or one that only this app can say. */
  readonly formula?: FormulaNode;
  readonly style?: Style;
}

export interface WrittenRow {
  readonly position: number;
  readonly heightPx?: number;
  readonly level?: number;
  readonly cells: readonly WrittenCell[];
}

/**
 * The rows of a sheet for a workbook, one by one. `painted` are the rules whose looks become the cells' own formatting.
 * Throws a BadFile where there are too many cells for one.
 */
export function* writtenRows(
  { sheet, resolver, running, area = wholeArea(sheet) }: ExportSource,
  painted: ReadonlySet<RunningRule>,
  onLostFormula: (position: number, column: number) => void,
): Generator<WrittenRow> {
  requireHeld(area);
  const { left, top, right, bottom } = area;
  // One object for all cells of one format: writers know it again.
  const formatted = new Map<string, Style>();
  const withFormat = (number: string): Style => {
    const known = formatted.get(number) ?? { number };
    formatted.set(number, known);
    return known;
  };
  for (let position = top; position <= bottom; position++) {
    const slot = sheet.slotAt(position);
    const about = sheet.rowFormat(slot);
    const cells: WrittenCell[] = [];
    for (let column = left; column <= right; column++) {
      const store = sheet.column(column);
      const value = store.valueAt(slot);
      const tree = store.formulas.has(slot) ? plainTree(store.inputAt(slot), sheet, position) : undefined;
      if (store.formulas.has(slot) && !tree) onLostFormula(position, column);
      const own = sheet.styleAt(column, slot);
      const format = formatAt(sheet, column, slot);
      const look = painted.size ? paintedStyle(resolver.resolve(column, slot), running, painted) : undefined;
      const style = mergeStyles([format === null ? undefined : withFormat(format), own, look]);
      if (value.kind === 'blank' && !tree && !style) continue;
      cells.push({ column: column - left, value, ...(tree ? { formula: tree } : {}), ...(style ? { style } : {}) });
    }
    yield {
      position: position - top,
      cells,
      ...(about.heightPx === undefined ? {} : { heightPx: about.heightPx }),
      ...(about.level === undefined ? {} : { level: about.level }),
    };
  }
}

/** The two formats of plain dates. */
const DATED = new Map([0, 0.5].map(plainDateFormat).map((number): [string, Style] => [number, { number }]));

/** The formatting of a cell, with that of a plain date where it holds one and has no other. */
export function datedStyle({ value, style }: Pick<WrittenCell, 'value' | 'style'>): Style | undefined {
  if (value.kind !== 'date' || style?.number) return style;
  const number = plainDateFormat(value.serial);
  return style ? { ...style, number } : DATED.get(number);
}

/** Merged cells that lie within an area, from its corner. */
export function mergesWithin(sheet: Sheet, { left, top, right, bottom }: CellRange): CellRange[] {
  return mergeAreas(sheet).flatMap(({ area }) =>
    area.left >= left && area.right <= right && area.top >= top && area.bottom <= bottom
      ? { left: area.left - left, right: area.right - left, top: area.top - top, bottom: area.bottom - top }
      : [],
  );
}

/** Fields and rows that stay in view: those that are frozen, and everything down to the header. */
export function frozenOf(sheet: Sheet): { readonly columns: number; readonly rows: number } {
  const header = sheet.order.findIndex((slot) => sheet.roleAt(slot) === 'header');
  return { columns: frozenColumns(sheet), rows: header >= 0 && header < 10 ? header + 1 : 0 };
}

/** The looks of some of the rules on a cell, as ordinary formatting. */
function paintedStyle(
  { properties, from }: ResolvedLook,
  running: readonly RunningRule[],
  painted: ReadonlySet<RunningRule>,
): Style | undefined {
  const own = new Map([...properties].filter(([name]) => painted.has(itemAt(running, from.get(name)!))));
  return own.size ? styleOfLook(own) : undefined;
}

/** A look as ordinary formatting: one colour instead of a gradient or pattern, and no icon or bar. */
export function styleOfLook(properties: LookProperties): Style {
  const style: Record<string, unknown> = {};
  const border: Record<string, unknown> = {};
  for (const [name, value] of properties) {
    if (name === 'fill') style.fill = groundOf(value as Fill);
    else if (name.startsWith('border.')) border[name.slice(7)] = value;
    else if (name !== 'icon' && name !== 'bar' && name !== 'hideValue') style[name] = value;
  }
  return { ...style, ...(Object.keys(border).length ? { border } : {}) };
}
