import { itemAt, lastItem } from '../values/item-at';
import { rulesOf } from '../rules/shape/stored-rule';
import type { Evaluation } from '../rules/evaluate/evaluation';
import type { RunningRule } from '../rules/evaluate/running-rule';
import { frozenColumns } from '../sheet/layout/frozen-columns';
import type { Field } from '../sheet/field';
import type { FieldId } from '../sheet/ids';
import type { Sheet } from '../sheet/sheet';
import type { Filling, SheetPart } from '../sheet/sheet-part';
import { valueInput } from '../values/value-input';
import { fillingOf, isOwn, keptFields, OpenCells } from './filling';
import { hasLegend, isFiller, type Reader } from './role';

/**
 * The part of a sheet that a filler or viewer may see. An allow-list: what is not named here is not sent. Viewers get
 * every field but hidden ones and answer keys. Fillers moreover get no field that the owner hides from them, nothing
 * that is for others to fill in unless the owner shows it, and no formula's result that depends on hidden cells.
 * Rebuilt when rows, fields, parts or rules change.
 */
export class VisibleSheet {
  /** Columns that are sent, from the left. */
  readonly columns: readonly number[];
  private readonly sheet: Sheet;
  private readonly filling: Filling;
  private readonly open: OpenCells;
  /** Columns of which a part or everything is not sent. */
  private readonly partlyHidden: ReadonlySet<number>;
  /** Columns whose formulas depend on hidden cells. */
  private readonly tainted: ReadonlySet<number>;

  constructor(
    private readonly evaluation: Evaluation,
    readonly reader: Reader,
  ) {
    const { sheet } = evaluation;
    this.sheet = sheet;
    this.filling = fillingOf(sheet.parts.values());
    const rules = rulesOf(sheet).map(({ rule }) => rule);
    const kept = keptFields(isFiller(reader.role) ? this.filling : { ...this.filling, kept: [] }, rules, sheet.fields);
    this.open = new OpenCells(this.filling, kept);
    this.columns = sheet.fields.flatMap(({ id }, column) => (kept.has(id) || this.isOthers(id) ? [] : column));
    const sent = new Set(this.columns);
    const isPartly = (column: number): boolean => !sent.has(column) || this.hidesSome(column);
    this.partlyHidden = hasLegend(reader.role)
      ? new Set()
      : new Set(sheet.fields.flatMap((_, column) => (isPartly(column) ? column : [])));
    this.tainted = taintedBy(evaluation, this.partlyHidden);
  }

  private get hidesOthers(): boolean {
    return isFiller(this.reader.role) && !this.filling.showsOthers;
  }

  /** True for a field that is another filler's in all its records. */
  private isOthers(field: FieldId): boolean {
    const { own } = this.reader;
    return this.hidesOthers && own.fields !== null && !own.fields.includes(field) && this.open.isOpenField(field);
  }

  /** True where some open cells of a column are not this filler's. */
  private hidesSome(column: number): boolean {
    const { id } = this.sheet.field(column);
    const { own } = this.reader;
    if (!this.hidesOthers || (own.rows === null && own.fields === null)) return false;
    return this.open.isOpenField(id)
      ? own.rows !== null
      : this.filling.openCells.some((cell) => cell.field === id && !isOwn(cell, own));
  }

  /** True where what a cell holds is for this reader, formulas aside. */
  isVisible(column: number, slot: number): boolean {
    if (!this.hidesOthers || !this.partlyHidden.has(column)) return true;
    const cell = { row: this.sheet.rowId(slot), role: this.sheet.roleAt(slot), field: this.sheet.field(column).id };
    return !this.open.isOpen(cell) || isOwn(cell, this.reader.own);
  }

  /** The content of a cell for this reader: what was typed, or instead of a formula its result. */
  inputAt(column: number, slot: number): string {
    const store = this.sheet.column(column);
    if (!this.isVisible(column, slot)) return '';
    if (!store.formulas.has(slot)) return store.inputAt(slot);
    return this.tainted.has(column) ? '' : valueInput(store.valueAt(slot), this.sheet.settings);
  }

  /** True for a cell of this filler's whose entries are judged while they are typed. */
  judgesWhileTyping(column: number, slot: number): boolean {
    if (this.filling.outcomes !== 'typing' || !this.columns.includes(column)) return false;
    const cell = { row: this.sheet.rowId(slot), role: this.sheet.roleAt(slot), field: this.sheet.field(column).id };
    return this.open.lockOf(cell, this.reader) === null;
  }

  /**
   * The rules whose looks this reader gets: while outcomes are withheld, no answer key, and none that depends on hidden
   * cells.
   */
  rules(): RunningRule[] {
    const { activeRules } = this.evaluation;
    if (hasLegend(this.reader.role) || this.filling.outcomes !== 'withheld') return [...activeRules];
    // What a rule with a problem would read is unknown, and it paints nothing.
    return activeRules.filter((rule) => rule.rule.when.kind !== 'key' && !rule.problem && !this.dependsOnHidden(rule));
  }

  /** True where a rule reads something that this reader does not get. */
  dependsOnHidden(rule: RunningRule): boolean {
    const isUnsent = (column: number): boolean =>
      !this.columns.includes(column) || this.partlyHidden.has(column) || this.tainted.has(column);
    return rule.columnsRead().some(isUnsent);
  }

  /** The fields as this reader gets them. */
  fields(): Field[] {
    return this.columns.map((column) => {
      const { hidden: _, allowed, ...field } = this.sheet.field(column);
      return allowed && this.filling.open.includes(field.id) ? { ...field, allowed } : field;
    });
  }

  /** The parts that are sent. Looks go to readers with a legend. */
  parts(): SheetPart[] {
    const ids = this.columns.map((column) => this.sheet.field(column).id);
    return [...this.sheet.parts.values()]
      .flatMap((part): SheetPart[] => {
        if (part.kind === 'bands') return [part];
        if (part.kind === 'look') return hasLegend(this.reader.role) ? [part] : [];
        if (part.kind === 'freeze') {
          const through = this.columns.filter((column) => column < frozenColumns(this.sheet)).at(-1);
          return through === undefined ? [] : [{ ...part, through: this.sheet.field(through).id }];
        }
        if (part.kind !== 'merge') return [];
        const [left, right] = [this.sheet.findColumn(part.left), this.sheet.findColumn(part.right)];
        if (left === undefined || right === undefined) return [];
        const within = this.columns.filter(
          (column) => column >= Math.min(left, right) && column <= Math.max(left, right),
        );
        if (within.length === 0) return [];
        return [
          { ...part, left: this.sheet.field(itemAt(within, 0)).id, right: this.sheet.field(lastItem(within)).id },
        ];
      })
      .concat(isFiller(this.reader.role) ? this.ownFilling(ids) : []);
  }

  /** The filler's own settings: their cells, and when they see outcomes. */
  private ownFilling(sent: readonly FieldId[]): Filling {
    const { open, openCells } = this.filling;
    const { own } = this.reader;
    return {
      ...this.filling,
      open: open.filter((field) => sent.includes(field) && (own.fields === null || own.fields.includes(field))),
      openCells: openCells.filter((cell) => sent.includes(cell.field) && isOwn(cell, own)),
      kept: [],
    };
  }

  /** A key that stays the same while the same part of the sheet is visible. */
  visibilityKey(): string {
    return JSON.stringify([this.fields(), this.parts(), [...this.partlyHidden], [...this.tainted]]);
  }
}

/** Columns with formulas that depend on some columns, directly or indirectly. */
function taintedBy({ sheet, calculation }: Evaluation, columns: ReadonlySet<number>): Set<number> {
  const tainted = new Set<number>();
  if (columns.size === 0) return tainted;
  for (let grew = true; grew;) {
    grew = false;
    sheet.fields.forEach((_, column) => {
      // What the calculation knows of a column may be older than its last formula.
      if (tainted.has(column) || sheet.column(column).formulas.count() === 0) return;
      const read = calculation.columnsReadBy(column);
      if (read !== 'unknown' && ![...read].some((other) => columns.has(other) || tainted.has(other))) return;
      tainted.add(column);
      grew = true;
    });
  }
  return tainted;
}
