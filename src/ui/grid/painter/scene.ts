import type { Area, PaintedLook, SheetWindow } from '../../../protocol/engine-messages';
import type { Tokens } from '../../theme/tokens';
import type { Geometry, Scroll, Size } from '../engine/geometry';

/** All that the painter needs for one frame: plain data, no React. */
export interface Scene {
  readonly geometry: Geometry;
  readonly scroll: Scroll;
  readonly view: Size;
  readonly tokens: Tokens;
  readonly window: SheetWindow | null;
  /** The frozen rows, kept apart from the window that scrolls. */
  readonly frozen: SheetWindow | null;
  readonly selected: Area | null;
  readonly active: { readonly column: number; readonly position: number } | null;
}

/** One cell of a window, ready to paint. */
export interface SceneCell {
  readonly text: string;
  readonly look: PaintedLook;
  readonly align: number;
  readonly faded: boolean;
  readonly isHeader: boolean;
}

/** The cell at a place of a window, or undefined where the window does not reach. */
export function sceneCell(window: SheetWindow, column: number, position: number): SceneCell | undefined {
  const { area } = window;
  if (column < area.left || column > area.right || position < area.top || position > area.bottom) return undefined;
  const at = (position - area.top) * (area.right - area.left + 1) + column - area.left;
  const role = window.roles[position - area.top]!;
  return {
    text: window.texts[at]!,
    look: window.lookTable[window.looks[at]!]!,
    align: window.aligns[at]!,
    faded: window.spotlit.length > 0 && window.spotlit[at] === 0,
    isHeader: role === 'header' || role === 'title',
  };
}
