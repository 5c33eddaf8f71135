import { SIDES, type BorderSide, type Fill, type LookBar, type Side } from '../../../core/looks/look';
import {
  BAR_SHARES,
  type Area,
  type PaintedLook,
  type SheetFrame,
  type SheetWindow,
} from '../../../protocol/sheet-view';
import type { Tokens } from '../../theme/tokens';
import type { Geometry, Scroll, Size } from '../engine/geometry';

/** All that the painter needs for one frame: plain data, no React. */
export interface Scene {
  readonly geometry: Geometry;
  readonly scroll: Scroll;
  readonly view: Size;
  readonly tokens: Tokens;
  /** What stands over the column of a formula that is tried; nothing where none is. */
  readonly trialHead: string;
  readonly window: SheetWindow | null;
  /** The frozen rows, kept apart from the window that scrolls. */
  readonly frozen: SheetWindow | null;
  readonly selected: Area | null;
  /** Additional selected ranges. */
  readonly also: readonly Area[];
  readonly active: { readonly column: number; readonly position: number } | null;
  /** Cells that the formula being typed refers to, each in the colour of its reference. */
  readonly references: readonly { readonly area: Area; readonly color: string }[];
  /** The selections of others, each in a colour of their own. */
  readonly others: readonly { readonly area: Area; readonly color: string; readonly name: string }[];
  /** Rows with others beneath them, that are folded away or not. */
  readonly folds: SheetFrame['folds'];
  /** Where a drag would fill to. */
  readonly filling: Area | null;
  /** The field or row before which a drag would drop the selected ones. */
  readonly landing: { readonly axis: 'columns' | 'rows'; readonly to: number } | null;
}

/** One cell of a window, ready to paint. */
export interface SceneCell {
  readonly text: string;
  readonly look: PaintedLook;
  readonly bar: LookBar | undefined;
  readonly align: number;
  readonly faded: boolean;
  readonly isHeader: boolean;
  /** True where the text is shown on as many lines as it needs: by its style, and in headers. */
  readonly wraps: boolean;
  readonly isTotal: boolean;
  readonly isBanded: boolean;
  /** True where the reader may type, for those who may not everywhere. */
  readonly isOpen: boolean;
  /** How many levels further in its text stands. */
  readonly level: number;
}

/** The cell at a place of a window, or undefined where the window does not reach. */
export function sceneCell(window: SheetWindow, column: number, position: number): SceneCell | undefined {
  const { area, rows } = window;
  if (column < area.left || column > area.right || position < area.top || position > area.bottom) return undefined;
  const row = rows.length === area.bottom - area.top + 1 ? position - area.top : indexIn(rows, position);
  if (row < 0) return undefined;
  const at = row * (area.right - area.left + 1) + column - area.left;
  const role = window.roles[row]!;
  const look = window.lookTable[window.looks[at]!]!;
  return {
    text: window.texts[at]!,
    look,
    bar: barAt(window, at, look),
    align: window.aligns[at]!,
    faded: window.spotlit.length > 0 && window.spotlit[at] === 0,
    level: column === 0 ? (window.levels[row] ?? 0) : 0,
    isOpen: window.open[at] === 1,
    isTotal: role === 'total',
    isBanded: window.banded[row] === 1,
    isHeader: role === 'header' || role === 'title',
    wraps: look.style.wrap ?? role === 'header',
  };
}

function barAt({ bars }: SheetWindow, at: number, { properties }: PaintedLook): LookBar | undefined {
  if (bars.length === 0 || properties.bar === undefined) return undefined;
  const first = at * BAR_SHARES;
  const axis = bars[first + 2]!;
  return {
    ...properties.bar,
    start: bars[first]!,
    end: bars[first + 1]!,
    axis: Number.isNaN(axis) ? null : axis,
  };
}

function indexIn(rows: readonly number[], position: number): number {
  let low = 0;
  let high = rows.length - 1;
  while (low <= high) {
    const middle = (low + high) >>> 1;
    if (rows[middle] === position) return middle;
    if (rows[middle]! < position) low = middle + 1;
    else high = middle - 1;
  }
  return -1;
}

/** The final style of a cell: the properties of rules, and ordinary formatting for the others. */
export interface Painted {
  readonly fill: Fill | undefined;
  readonly ground: string | undefined;
  readonly text: string | undefined;
  readonly bold: boolean | undefined;
  readonly italic: boolean;
  readonly underline: boolean;
  readonly strike: boolean;
  readonly borders: readonly (readonly [Side, BorderSide])[];
}

/** Worked out once a look: a window has few, and its cells share them. */
const known = new WeakMap<PaintedLook, Painted>();

export function painted(look: PaintedLook): Painted {
  let found = known.get(look);
  if (!found) known.set(look, (found = paintedOf(look)));
  return found;
}

function paintedOf({ properties, style }: PaintedLook): Painted {
  return {
    fill: properties.fill,
    ground: style.fill,
    text: properties.text ?? style.text,
    bold: properties.bold ?? style.bold,
    italic: (properties.italic ?? style.italic) === true,
    underline: (properties.underline ?? style.underline) === true,
    strike: (properties.strike ?? style.strike) === true,
    borders: SIDES.flatMap((side) => {
      const border = properties[`border.${side}`] ?? style.border?.[side];
      return border ? [[side, border] as const] : [];
    }),
  };
}
