import type { Area } from '../../../protocol/engine-messages';

export interface Cell {
  readonly column: number;
  readonly position: number;
}

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

export interface Scroll {
  readonly left: number;
  readonly top: number;
}

export interface Size {
  readonly width: number;
  readonly height: number;
}

/** Where cells lie. Pixels are counted from the sheet's top left corner, letters and numbers included, unless said otherwise. */
export class Geometry {
  /** Left edges of the columns, and the right edge of the last. */
  private readonly lefts: readonly number[];

  constructor(
    widths: readonly number[],
    readonly rowCount: number,
    /** Rows at the top that do not scroll. */
    readonly frozenRows: number,
  ) {
    const lefts = [GUTTER_PX];
    for (const width of widths) lefts.push(lefts.at(-1)! + width);
    this.lefts = lefts;
  }

  get columnCount(): number {
    return this.lefts.length - 1;
  }

  get width(): number {
    return this.lefts.at(-1)!;
  }

  get height(): number {
    return HEAD_PX + this.rowCount * ROW_PX;
  }

  /** Height of what stays at the top: the letters and the frozen rows. */
  get frozenHeight(): number {
    return HEAD_PX + this.frozenRows * ROW_PX;
  }

  columnLeft(column: number): number {
    return this.lefts[Math.min(column, this.columnCount)]!;
  }

  columnWidth(column: number): number {
    return this.columnLeft(column + 1) - this.columnLeft(column);
  }

  rowTop(position: number): number {
    return HEAD_PX + position * ROW_PX;
  }

  /** The box of a cell as it lies on the sheet. */
  box({ column, position }: Cell): Box {
    return { x: this.columnLeft(column), y: this.rowTop(position), width: this.columnWidth(column), height: ROW_PX };
  }

  /** The box of an area as it lies in a view that is scrolled: frozen rows do not move. */
  boxInView(area: Area, scroll: Scroll): Box {
    const top = area.top < this.frozenRows ? this.rowTop(area.top) : this.rowTop(area.top) - scroll.top;
    const bottom = area.bottom < this.frozenRows ? this.rowTop(area.bottom + 1) : this.rowTop(area.bottom + 1) - scroll.top;
    const x = this.columnLeft(area.left) - scroll.left;
    return { x, y: top, width: this.columnLeft(area.right + 1) - this.columnLeft(area.left), height: Math.max(bottom - top, 0) };
  }

  /** The column at a distance from the left edge, clipped to the sheet. */
  columnAt(x: number): number {
    let low = 0;
    let high = this.columnCount - 1;
    while (low < high) {
      const middle = (low + high + 1) >>> 1;
      if (this.lefts[middle]! <= x) low = middle;
      else high = middle - 1;
    }
    return low;
  }

  /** The row at a distance from the top edge, clipped to the sheet. */
  positionAt(y: number): number {
    return Math.max(0, Math.min(this.rowCount - 1, Math.floor((y - HEAD_PX) / ROW_PX)));
  }

  /** The rows and columns that a view shows beneath what is frozen. */
  visible(scroll: Scroll, view: Size): Area {
    return {
      left: this.columnAt(scroll.left + GUTTER_PX),
      right: this.columnAt(scroll.left + view.width),
      top: Math.min(this.rowCount - 1, this.positionAt(scroll.top + this.frozenHeight)),
      bottom: this.positionAt(scroll.top + view.height),
    };
  }

  /** Where to scroll so that a cell is wholly in view; where it is already, nothing moves. Frozen rows are always in view. */
  scrollTo(cell: Cell, scroll: Scroll, view: Size): Scroll {
    const { x, y, width, height } = this.box(cell);
    const left =
      x - GUTTER_PX < scroll.left
        ? x - GUTTER_PX
        : x + width > scroll.left + view.width
          ? Math.min(x - GUTTER_PX, x + width - view.width)
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
