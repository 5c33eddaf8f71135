import { SIDES, type BorderSide, type Side } from '../looks/look';
import type { Style } from '../looks/style';
import type { CellRange } from '../sheet/address';
import type { CellStyle, Operation } from '../sheet/change';
import { formatAt } from '../sheet/shown-cell';
import type { Sheet } from '../sheet/sheet';
import { withDecimals } from '../values/number-format';
import { isDatePattern } from '../values/dates/date-format';
import { checkSize, type Editor } from './editor';

/** Changes of some properties: null removes one. */
export type StylePatch = { readonly [P in keyof Style]: Style[P] | null };

/** The style with a patch over it; null where nothing is left. Sides of a border are patched one by one. */
export function patchStyle(style: Style | undefined, { border, ...patch }: StylePatch): Style | null {
  const sides = border === null ? {} : { ...style?.border, ...border };
  const given = { ...style, ...patch, border: Object.keys(sides).length ? sides : null };
  const kept = Object.entries(given).filter(([, value]) => value !== null && value !== undefined);
  return kept.length ? (Object.fromEntries(kept) as Style) : null;
}

const isWholeFields = (sheet: Sheet, { top, bottom }: CellRange): boolean => top === 0 && bottom >= sheet.rowCount - 1;

/**
 * Lays a style over cells. Whole fields keep it for records to come; cells of theirs with a style of their own get it
 * as well.
 */
export const applyStyle: Editor<{ readonly area: CellRange; readonly patch: StylePatch }> = {
  operations(sheet, { area, patch }) {
    const { number, ...rest } = patch;
    if (!isWholeFields(sheet, area)) return styleCells(sheet, area, patch);
    const fields = sheet.fields.slice(area.left, area.right + 1).map(({ style, ...field }) => {
      const patched = patchStyle(style, rest);
      return { ...field, ...(number === undefined ? {} : { format: number }), ...(patched ? { style: patched } : {}) };
    });
    return [{ kind: 'put-fields', fields }, ...styleOwn(sheet, area, patch)];
  },
  says: ({ patch }) => `style: ${Object.keys(patch).join(', ')}`,
};

function styleCells(sheet: Sheet, area: CellRange, patch: StylePatch): Operation[] {
  checkSize(area);
  const cells: CellStyle[] = [];
  for (const slot of sheet.order.slice(area.top, area.bottom + 1))
    for (let column = area.left; column <= area.right; column++)
      cells.push({
        ...sheet.cellIds(column, slot),
        style: patchStyle(sheet.column(column).styles.get(slot), patch),
      });
  return [{ kind: 'set-styles', cells }];
}

/** Cells with a style of their own that sets one of the properties as well. */
function styleOwn(sheet: Sheet, { left, right }: CellRange, patch: StylePatch): Operation[] {
  const cells: CellStyle[] = [];
  for (let column = left; column <= right; column++)
    for (const [slot, style] of sheet.column(column).styles)
      if (sheet.positionOf(slot) >= 0 && Object.keys(patch).some((name) => name in style))
        cells.push({ ...sheet.cellIds(column, slot), style: patchStyle(style, patch) });
  return cells.length ? [{ kind: 'set-styles', cells }] : [];
}

/** A line around an area as a whole. */
export const outlineCells: Editor<{ readonly area: CellRange; readonly line: BorderSide }> = {
  operations(sheet, { area, line }) {
    const { left, top, right, bottom } = area;
    const edges: { readonly [S in Side]: CellRange } = {
      top: { ...area, bottom: top },
      bottom: { ...area, top: bottom },
      left: { ...area, right: left },
      right: { ...area, left: right },
    };
    const cells = new Map<string, CellStyle>();
    for (const side of SIDES)
      for (const slot of sheet.order.slice(edges[side].top, edges[side].bottom + 1))
        for (let column = edges[side].left; column <= edges[side].right; column++) {
          const [row, field] = [sheet.rowId(slot), sheet.field(column).id];
          const key = JSON.stringify([row, field]);
          const before = cells.get(key)?.style ?? sheet.column(column).styles.get(slot);
          cells.set(key, { row, field, style: patchStyle(before, { border: { [side]: line } }) });
        }
    return [{ kind: 'set-styles', cells: [...cells.values()] }];
  },
  says: () => 'outline',
};

/** Takes all ordinary formatting away. Number formats stay. */
export const clearStyle: Editor<{ readonly area: CellRange }> = {
  operations(sheet, { area }) {
    const own = (column: number, slot: number): CellStyle => {
      const number = sheet.column(column).styles.get(slot)?.number;
      return {
        ...sheet.cellIds(column, slot),
        style: number === undefined ? null : { number },
      };
    };
    const cells: CellStyle[] = [];
    for (let column = area.left; column <= area.right; column++)
      for (const slot of sheet.column(column).styles.keys()) {
        const position = sheet.positionOf(slot);
        if (position >= area.top && position <= area.bottom) cells.push(own(column, slot));
      }
    const bare = sheet.fields.slice(area.left, area.right + 1).filter(({ style }) => style !== undefined);
    return [
      ...(isWholeFields(sheet, area) && bare.length
        ? [{ kind: 'put-fields' as const, fields: bare.map(({ style: _, ...field }) => field) }]
        : []),
      ...(cells.length ? [{ kind: 'set-styles' as const, cells }] : []),
    ];
  },
  says: () => 'clear formatting',
};

/** One decimal more or fewer than the first cell shows. */
export const changeDecimals: Editor<{ readonly area: CellRange; readonly by: 1 | -1 }> = {
  operations(sheet, { area, by }, tools) {
    const slots = sheet.order.slice(area.top, area.bottom + 1);
    const numeric = slots.find((slot) => sheet.column(area.left).valueAt(slot).kind === 'number') ?? slots[0];
    if (numeric === undefined) return [];
    const now = formatAt(sheet, area.left, numeric);
    const value = sheet.column(area.left).valueAt(numeric);
    const typed = value.kind === 'number' ? (String(value.number).split('.')[1]?.length ?? 0) : 0;
    const base = now !== null && !isDatePattern(now) ? now : `0${typed ? `.${'0'.repeat(Math.min(typed, 10))}` : ''}`;
    return applyStyle.operations(sheet, { area, patch: { number: withDecimals(base, by) } }, tools);
  },
  says: ({ by }) => (by > 0 ? 'one decimal more' : 'one decimal fewer'),
};
