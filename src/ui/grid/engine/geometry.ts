import { holdsCell } from '../../../core/sheet/address';
import type { CellPosition } from '../../../core/sheet/cell-position';
import { itemAt, lastItem } from '../../../core/values/item-at';
import type { Area, RowHeights } from '../../../protocol/sheet-view';

/** A rectangle in pixels. */
export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export const ROW_PX = 27;
/** Height of the strip of column letters. */
export const HEAD_PX = 22;
/** Width of the strip of row numbers. */
export const GUTTER_PX = 52;
/** Width of the trial column that stands beside them while a formula is worked on. */
export const TRIAL_PX = 88;
/** The part of the row numbers, at the left, where rows are folded. */
export const FOLD_PX = 18;

export interface Scroll {
  readonly left: number;
  readonly top: number;
}

export interface Size {
  readonly width: number;
  readonly height: number;
}

/** The facts that decide where cells lie. */
export interface GridLayout {
  /** 0 for a field that is out of view. */
  readonly widths: readonly number[];
  readonly rowCount: number;
  readonly frozenRows: number;
  readonly frozenColumns?: number;
  readonly heights?: RowHeights;
  readonly merges?: readonly Area[];
  /** Room for the trial column, beside the row numbers; 0 by default. */
  readonly trialPx?: number;
}

/**
 * Where cells lie. Pixels are counted from the sheet's top left corner, letters and numbers included, unless said
 * otherwise.
 */
export class Geometry {
  /** Left edges of the columns, and the right edge of the last. */
  private readonly lefts: readonly number[];
  /** By run of `heights`: how many pixels all runs before it add to rows of the usual height. */
  private readonly added: readonly number[];

  readonly rowCount: number;
  /** Rows at the top that do not scroll. */
  readonly frozenRows: number;
  /** Columns at the left that do not scroll. */
  readonly frozenColumns: number;
  readonly merges: readonly Area[];
  private readonly heights: RowHeights;

  constructor(private readonly layout: GridLayout) {
    const { widths, rowCount, frozenRows, frozenColumns = 0, heights = [], merges = [] } = layout;
    this.rowCount = rowCount;
    this.frozenRows = frozenRows;
    this.frozenColumns = frozenColumns;
    this.merges = merges;
    this.heights = heights;
    const added = [0];
    for (const [top, bottom, heightPx] of heights)
      added.push(lastItem(added) + (bottom - top + 1) * (heightPx - ROW_PX));
    this.added = added;
    const lefts = [GUTTER_PX + (layout.trialPx ?? 0)];
    for (const width of widths) lefts.push(lastItem(lefts) + width);
    this.lefts = lefts;
  }

  withWidth(column: number, widthPx: number): Geometry {
    return new Geometry({ ...this.layout, widths: this.layout.widths.with(column, Math.round(widthPx)) });
  }

  withHeight(position: number, heightPx: number): Geometry {
    const others = this.heights.flatMap(([top, bottom, px]): (readonly [number, number, number])[] =>
      position < top || position > bottom
        ? [[top, bottom, px]]
        : [[top, position - 1, px] as const, [position + 1, bottom, px] as const].filter(([from, to]) => from <= to),
    );
    const heights = [...others, [position, position, Math.round(heightPx)] as const].sort(([a], [b]) => a - b);
    return new Geometry({ ...this.layout, heights });
  }

  get columnCount(): number {
    return this.lefts.length - 1;
  }

  get width(): number {
    return lastItem(this.lefts);
  }

  get height(): number {
    return this.rowTop(this.rowCount);
  }

  /** Width of the strip of row numbers and the trial column. */
  get gutterWidth(): number {
    return itemAt(this.lefts, 0);
  }

  /** Height of what stays at the top: the letters and the frozen rows. */
  get frozenHeight(): number {
    return this.rowTop(this.frozenRows);
  }

  /** Width of what stays at the left: the numbers and the frozen columns. */
  get frozenWidth(): number {
    return this.columnLeft(this.frozenColumns);
  }

  columnLeft(column: number): number {
    return itemAt(this.lefts, Math.min(column, this.columnCount));
  }

  columnWidth(column: number): number {
    return this.columnLeft(column + 1) - this.columnLeft(column);
  }

  rowTop(position: number): number {
    const before = this.runBefore(position);
    const run = this.heights[before - 1];
    // The run that the row is in, or the last above it, counts as far as it goes.
    const partial = run ? (Math.min(run[1] + 1, position) - run[0]) * (run[2] - ROW_PX) : 0;
    return HEAD_PX + position * ROW_PX + (run ? itemAt(this.added, before - 1) : 0) + partial;
  }

  /** How many runs of `heights` begin above a row. */
  private runBefore(position: number): number {
    let low = 0;
    let high = this.heights.length;
    while (low < high) {
      const middle = (low + high) >>> 1;
      if (itemAt(this.heights, middle)[0] < position) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  /** 0 for a row that is out of view. */
  rowHeight(position: number): number {
    const run = this.heights[this.runBefore(position + 1) - 1];
    return run && position <= run[1] ? run[2] : ROW_PX;
  }

  /** The rows of a span that are in view. */
  rowsShown(top: number, bottom: number): number[] {
    const rows: number[] = [];
    let at = top;
    for (let run = Math.max(0, this.runBefore(top) - 1); run < this.heights.length && at <= bottom; run++) {
      const [first, last, heightPx] = itemAt(this.heights, run);
      if (heightPx !== 0 || last < at) continue;
      for (; at < first && at <= bottom; at++) rows.push(at);
      at = Math.max(at, last + 1);
    }
    for (; at <= bottom; at++) rows.push(at);
    return rows;
  }

  /** The merged cells that a cell is part of. */
  mergeAt({ column, position }: CellPosition): Area | undefined {
    return this.merges.find((area) => holdsCell(area, column, position));
  }

  /** The area that a selection shows as: one merged cell counts as all of it. */
  shownArea(selected: Area): Area {
    const merged = this.mergeAt({ column: selected.left, position: selected.top });
    return merged && selected.right <= merged.right && selected.bottom <= merged.bottom ? merged : selected;
  }

  /** The area that a cell takes: its own place, or that of the merged cells it is part of. */
  areaOf(cell: CellPosition): Area {
    return this.mergeAt(cell) ?? { left: cell.column, right: cell.column, top: cell.position, bottom: cell.position };
  }

  /** The box of a cell as it lies on the sheet. */
  box({ column, position }: CellPosition): Box {
    const { left, top, right, bottom } = this.areaOf({ column, position });
    const [x, y] = [this.columnLeft(left), this.rowTop(top)];
    return { x, y, width: this.columnLeft(right + 1) - x, height: this.rowTop(bottom + 1) - y };
  }

  /** The box of an area as it lies in a view that is scrolled: what is frozen does not move. */
  boxInView(area: Area, scroll: Scroll): Box {
    const top = area.top < this.frozenRows ? this.rowTop(area.top) : this.rowTop(area.top) - scroll.top;
    const bottom =
      area.bottom < this.frozenRows ? this.rowTop(area.bottom + 1) : this.rowTop(area.bottom + 1) - scroll.top;
    const left = area.left < this.frozenColumns ? this.columnLeft(area.left) : this.columnLeft(area.left) - scroll.left;
    const right =
      area.right < this.frozenColumns ? this.columnLeft(area.right + 1) : this.columnLeft(area.right + 1) - scroll.left;
    return { x: left, y: top, width: Math.max(right - left, 0), height: Math.max(bottom - top, 0) };
  }

  /** The column at a distance from the left edge, clipped to the sheet. */
  columnAt(x: number): number {
    let low = 0;
    let high = this.columnCount - 1;
    while (low < high) {
      const middle = (low + high + 1) >>> 1;
      if (itemAt(this.lefts, middle) <= x) low = middle;
      else high = middle - 1;
    }
    return low;
  }

  /** The row at a distance from the top edge, clipped to the sheet. */
  positionAt(y: number): number {
    let low = 0;
    let high = Math.max(0, this.rowCount - 1);
    while (low < high) {
      const middle = (low + high + 1) >>> 1;
      if (this.rowTop(middle) <= y) low = middle;
      else high = middle - 1;
    }
    return low;
  }

  /** The rows and columns that a view shows beneath what is frozen. */
  visible(scroll: Scroll, view: Size): Area {
    return {
      left: this.columnAt(scroll.left + this.frozenWidth),
      right: this.columnAt(scroll.left + view.width),
      top: Math.min(this.rowCount - 1, this.positionAt(scroll.top + this.frozenHeight)),
      bottom: this.positionAt(scroll.top + view.height),
    };
  }

  /**
   * Where to scroll so that a cell is wholly in view; where it is already, nothing moves. Frozen rows are always in
   * view.
   */
  scrollTo(cell: CellPosition, scroll: Scroll, view: Size): Scroll {
    const { x, y, width, height } = this.box(cell);
    const furthest = x - this.frozenWidth;
    const left =
      cell.column < this.frozenColumns
        ? scroll.left
        : furthest < scroll.left
          ? furthest
          : x + width > scroll.left + view.width
            ? Math.min(furthest, x + width - view.width)
            : scroll.left;
    if (cell.position < this.frozenRows) return { left, top: scroll.top };
    const highest = y - this.frozenHeight;
    const lowest = y + height - view.height;
    if (scroll.top <= highest && scroll.top >= lowest) return { left, top: scroll.top };
    // A step or two away the view only follows; a cell from elsewhere is put in the middle, with what surrounds it.
    const isNear = highest > scroll.top - 3 * ROW_PX && lowest < scroll.top + 3 * ROW_PX;
    return { left, top: isNear ? (highest < scroll.top ? highest : lowest) : Math.max(0, (highest + lowest) / 2) };
  }
}
