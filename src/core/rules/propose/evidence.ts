import type { Look } from '../../looks/look';
import type { Sheet } from '../../sheet/sheet';
import { TAG, type CellValue } from '../../values/cell-value';
import type { ReadColumn } from '../compile/reach';

/** A cell that somebody has pointed at. */
export interface ExampleCell {
  readonly column: number;
  readonly slot: number;
}

/** Cells that are to have a look. */
export interface WantedCells {
  readonly look: Look;
  readonly cells: readonly ExampleCell[];
}

interface EvidenceSource {
  readonly sheet: Sheet;
  /** The cells that the rule would read. */
  readonly read: readonly ReadColumn[];
  /** One entry for each look. */
  readonly wanted: readonly WantedCells[];
  readonly unwanted: readonly ExampleCell[];
  /** This moment as a serial date; NaN where it is not known. */
  readonly now: number;
  /** Whether somebody pointed at these cells, and not at others of their rows. */
  readonly isPointed: boolean;
}

/** The ends of some numbers. */
export interface Extent {
  readonly least: number;
  readonly greatest: number;
}

/** What a kind of condition proposes from: some cells that are to have a look, and some that are not. */
export class Evidence {
  readonly sheet: Sheet;
  readonly read: readonly ReadColumn[];
  readonly wanted: readonly WantedCells[];
  /** Cells of the first look. */
  readonly yes: readonly ExampleCell[];
  readonly no: readonly ExampleCell[];
  readonly now: number;
  readonly isPointed: boolean;
  private known: Extent | null = null;

  constructor({ sheet, read, wanted, unwanted, now, isPointed }: EvidenceSource) {
    this.sheet = sheet;
    this.read = read;
    this.wanted = wanted;
    this.yes = wanted[0]?.cells ?? [];
    this.no = unwanted;
    this.now = now;
    this.isPointed = isPointed;
  }

  /** The field that is read, by its index; the first of several. */
  get column(): number {
    return this.read[0]?.column ?? 0;
  }

  /** How many distinct values the field that is read has, at most. */
  get valueCount(): number {
    const { contents } = this.sheet.column(this.column);
    return Math.min(contents.count, this.read[0]?.slots.count() ?? 0);
  }

  valueOf({ column, slot }: ExampleCell): CellValue {
    return this.sheet.column(column).valueAt(slot);
  }

  /** The number of a cell, NaN where it holds none. A date has none. */
  numberOf({ column, slot }: ExampleCell): number {
    const store = this.sheet.column(column);
    return store.tags[slot] === TAG.number ? store.numberAt(slot) : NaN;
  }

  /** Calls `visit` with every number that is read. */
  forEachNumber(visit: (number: number, slot: number) => void): void {
    for (const { column, slots } of this.read) {
      const store = this.sheet.column(column);
      for (let slot = 0; slot < this.sheet.slotCount; slot++)
        if (store.tags[slot] === TAG.number && slots.has(slot)) visit(store.numberAt(slot), slot);
    }
  }

  /** The least and the greatest number that is read; infinite of none. Cost: a pass over them, once. */
  extent(): Extent {
    return (this.known ??= this.findExtent());
  }

  private findExtent(): Extent {
    let [least, greatest] = [Infinity, -Infinity];
    this.forEachNumber((number) => {
      if (number < least) least = number;
      if (number > greatest) greatest = number;
    });
    return { least, greatest };
  }

  /** The same reading with other examples. */
  with(examples: Pick<EvidenceSource, 'wanted' | 'unwanted'>): Evidence {
    const { sheet, read, now, isPointed } = this;
    const other = new Evidence({ sheet, read, now, isPointed, ...examples });
    other.known = this.known;
    return other;
  }
}
