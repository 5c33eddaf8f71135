import { holdsCell } from '../../sheet/address';
import { itemAt } from '../../values/item-at';
import type { FieldFormula } from './field-formula';
import { Area } from '../values/formula-value';
import { isKept } from '../syntax/formula-tree';
import type { EvalCursor } from '../values/place';

/** Cells that formulas read as a block: one entry for all formulas that read the same block, never one a cell. */
interface Block {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
  readonly readers: FieldFormula[];
}

/** Which formulas read a cell. Rows are positions, so the index is rebuilt when rows change. */
export class DependencyIndex {
  size = 0;
  private readonly rows = new Map<number, FieldFormula[]>();
  /** Single cells, by column and position. */
  private readonly singles = new Map<number, Map<number, FieldFormula[]>>();
  private readonly blocks = new Map<string, Block>();
  private readonly read = new Map<number, Set<number> | 'unknown'>();
  private readonly volatile: Readonly<Record<'clock' | 'cells', FieldFormula[]>> = { clock: [], cells: [] };

  /** Adds a formula; `place` is one of its cells. */
  add(formula: FieldFormula, place: EvalCursor): void {
    this.size++;
    const { references, bound, compiled } = formula.formula;
    for (const on of compiled.volatile) this.volatile[on].push(formula);
    if (compiled.volatile.has('cells')) this.read.set(formula.column, 'unknown');
    references.forEach((node, at) => {
      const area = itemAt(bound, at).areaAt(place);
      if (!(area instanceof Area) || area.sheet !== place.context.sheet) return;
      this.noteColumns(formula.column, area);
      const [end] = node.ends;
      const isSameRow = node.ends.length === 1 && end !== undefined && isKept(end) && end.row === 'same';
      if (isSameRow) listAt(this.rows, area.left).push(formula);
      else if (area.rows === 1 && area.columns === 1) listAt(mapAt(this.singles, area.left), area.top).push(formula);
      else this.blockOf(area).readers.push(formula);
    });
  }

  private noteColumns(column: number, area: Area): void {
    const read = this.read.get(column) ?? new Set<number>();
    if (read === 'unknown') return;
    this.read.set(column, read);
    for (let at = area.left; at <= Math.min(area.right, area.sheet.fields.length - 1); at++) read.add(at);
  }

  private blockOf({ left, right, top, bottom }: Area): Block {
    const key = `${left} ${right} ${top} ${bottom}`;
    let block = this.blocks.get(key);
    if (!block) this.blocks.set(key, (block = { left, right, top, bottom, readers: [] }));
    return block;
  }

  /** Formulas that read the cell of a column in their own row. */
  sameRow(column: number): readonly FieldFormula[] {
    return this.rows.get(column) ?? [];
  }

  /** Formulas that read a cell by its place, alone or in a block. */
  *reading(column: number, position: number): Iterable<FieldFormula> {
    yield* this.singles.get(column)?.get(position) ?? [];
    for (const block of this.blocks.values()) if (holdsCell(block, column, position)) yield* block.readers;
  }

  /** How many blocks there are: each is looked at to find what reads a cell. */
  get blockCount(): number {
    return this.blocks.size;
  }

  /** The columns that the formulas of a column read. */
  columnsRead(column: number): ReadonlySet<number> | 'unknown' {
    return this.read.get(column) ?? new Set();
  }

  volatileOn(on: 'clock' | 'cells'): readonly FieldFormula[] {
    return this.volatile[on];
  }
}

function listAt<K, V>(map: Map<K, V[]>, key: K): V[] {
  let list = map.get(key);
  if (!list) map.set(key, (list = []));
  return list;
}

function mapAt<K, L, V>(map: Map<K, Map<L, V>>, key: K): Map<L, V> {
  let inner = map.get(key);
  if (!inner) map.set(key, (inner = new Map()));
  return inner;
}
