import { BitSet } from '../values/bit-set';
import { TAG } from '../values/cell-value';
import { TextIndex } from '../values/text-index';
import { mergeStyles, type Style } from '../looks/style';
import type { KeyedRule, RowAbout, StoredRow } from './change';
import { byKey, compareKeys } from './compare-keys';
import { Column } from './column/column';
import type { CellBefore } from './effect';
import type { Field } from './field';
import { KeyedItems } from './keyed-items';
import type { CellIds, FieldId, RowId } from './ids';
import { compactFormat, NO_FORMAT, type NullableAbout, type OwnAbout } from './row-about';
import { nameKey, type NamedRange, type SheetPart, type SheetPartOf } from './sheet-part';
import { REMOVED, ROW_ROLES, roleCode, type RowRole } from './row-role';
import type { SheetSettings } from './sheet-settings';

/**
 * The cells, rows and fields of a sheet in memory. Rows live in *slots* that never move: a new row takes the next slot,
 * a removed row leaves its slot marked, and `order` lists the slots from top to bottom. So columns, bit sets and
 * statistics stay valid when rows are inserted, moved or removed. One file, since everything needs the same private
 * order, keys and slots. Memory per cell: 13 bytes, 5 in fields without
 * a number, and the distinct inputs of each field once.
 */
export class SheetStore {
  /** From left to right, as the fields. */
  columns: readonly Column[];
  readonly rules = new KeyedItems<KeyedRule>();
  /** Slots used so far, those of removed rows included. */
  slotCount = 0;
  /** Slots from top to bottom. */
  order: number[] = [];
  roles = new Uint8Array(64).fill(REMOVED);
  private ids: RowId[] = [];
  private keys: string[] = [];
  private readonly slotOfId = new TextIndex((slot) => this.rowId(slot));
  private fieldList: readonly Field[] = [];
  private columnOfId: ReadonlyMap<FieldId, number> = new Map();
  readonly parts = new KeyedItems<SheetPart>();
  /** Formats of rows, by slot: few have any. */
  private readonly abouts = new Map<number, OwnAbout>();
  private positions: Int32Array | null = null;
  private readonly masks = new Map<string, BitSet>();

  /** Fields in order. */
  constructor(
    fields: readonly Field[],
    readonly settings: SheetSettings = {},
  ) {
    this.columns = fields.map(() => new Column(settings));
    this.useFields(fields);
  }

  /** From left to right. */
  get fields(): readonly Field[] {
    return this.fieldList;
  }

  private useFields(fields: readonly Field[]): void {
    this.fieldList = fields;
    this.columnOfId = new Map(fields.map((field, column) => [field.id, column]));
  }

  /** The parts of a kind, in the order in which they were made. */
  partsOf<K extends SheetPart['kind']>(kind: K): SheetPartOf<K>[] {
    return [...this.parts.values()].filter((part): part is SheetPartOf<K> => part.kind === kind);
  }

  findName(name: string): NamedRange | undefined {
    const part = this.parts.get(nameKey(name));
    return part?.kind === 'name' ? part : undefined;
  }

  /** The format of a row. */
  rowFormat(slot: number): OwnAbout {
    return this.abouts.get(slot) ?? NO_FORMAT;
  }

  /** Rows that have a format, in no order. */
  rowsWithAbout(): Iterable<readonly [slot: number, about: OwnAbout]> {
    return this.abouts;
  }

  /** The ordinary formatting of a cell: that of its field, of its row over it, and its own over both. */
  styleAt(column: number, slot: number): Style | undefined {
    return mergeStyles([
      this.fieldList[column]!.style,
      this.abouts.get(slot)?.style,
      this.column(column).styles.get(slot),
    ]);
  }

  get rowCount(): number {
    return this.order.length;
  }

  /** The cells of a field. Throws a RangeError where there is no such field. */
  column(index: number): Column {
    const column = this.columns[index];
    if (!column) throw new RangeError(`There is no field ${index} in a sheet of ${this.columns.length}.`);
    return column;
  }

  /** The field at an index from the left. Throws a RangeError where there is none. */
  field(index: number): Field {
    const field = this.fieldList[index];
    if (!field) throw new RangeError(`There is no field ${index} in a sheet of ${this.fieldList.length}.`);
    return field;
  }

  /** The slot of the row at a position from the top. Throws a RangeError where there is none. */
  slotAt(position: number): number {
    const slot = this.order[position];
    if (slot === undefined) throw new RangeError(`There is no row ${position} in a sheet of ${this.order.length}.`);
    return slot;
  }

  /** The ids of a cell. Throws a RangeError where there is no such field. */
  cellIds(column: number, slot: number): CellIds {
    return { row: this.rowId(slot), field: this.field(column).id };
  }

  /** Where the cell with these ids is, or undefined where its row or its field is gone. */
  findCell({ row, field }: CellIds): { readonly column: number; readonly slot: number } | undefined {
    const column = this.findColumn(field);
    const slot = this.findSlot(row);
    return column === undefined || slot === undefined ? undefined : { column, slot };
  }

  findColumn(id: FieldId): number | undefined {
    return this.columnOfId.get(id);
  }

  findSlot(id: RowId): number | undefined {
    const slot = this.slotOfId.find(id);
    return slot < 0 ? undefined : slot;
  }

  rowId(slot: number): RowId {
    return this.ids[slot]!;
  }

  rowKey(slot: number): string {
    return this.keys[slot]!;
  }

  roleAt(slot: number): RowRole {
    return ROW_ROLES[this.roles[slot]!]!;
  }

  /** Where a slot's row stands, 0 for the first row. Rebuilt after rows were inserted or removed. */
  positionOf(slot: number): number {
    if (!this.positions) {
      const positions = new Int32Array(this.slotCount).fill(-1);
      this.order.forEach((member, position) => (positions[member] = position));
      this.positions = positions;
    }
    return this.positions[slot] ?? -1;
  }

  /** Positions of the first and the last record; `last` is before `first` where there is none. */
  recordSpan(): { readonly first: number; readonly last: number } {
    const isRecord = (slot: number) => this.roleAt(slot) === 'record';
    const first = this.order.findIndex(isRecord);
    return { first: Math.max(0, first), last: first < 0 ? -1 : this.order.findLastIndex(isRecord) };
  }

  private isFilled(slot: number): boolean {
    return this.columns.some(({ tags }) => tags[slot] !== TAG.blank);
  }

  /** True where no cell holds anything. */
  isEmpty(): boolean {
    return !this.order.some((slot) => this.isFilled(slot));
  }

  /** The position of the last row with content; -1 where there is none. */
  lastFilledRow(): number {
    return this.order.findLastIndex((slot) => this.isFilled(slot));
  }

  /** Where the next record goes: above the totals that end the rows with content, else after all rows. */
  nextRecordAt(): number {
    let position = this.lastFilledRow();
    if (position < 0 || this.roleAt(this.slotAt(position)) !== 'total') return this.rowCount;
    while (position > 0 && this.roleAt(this.slotAt(position - 1)) === 'total') position--;
    return position;
  }

  /** The field's label: the text of its cell in the first header row, or undefined where there is none. */
  labelOf(column: number): string | undefined {
    const header = this.headerSlot();
    const label = header === undefined ? '' : this.column(column).entryAt(header).shown.trim();
    return label || undefined;
  }

  private headerSlot(): number | undefined {
    for (let position = 0; position < Math.min(this.order.length, 20); position++)
      if (this.roleAt(this.slotAt(position)) === 'header') return this.order[position];
    return undefined;
  }

  /** The slots whose role is one of those given. The set is shared and kept up to date: do not write to it. */
  slotsWithRoles(roles: readonly RowRole[]): BitSet {
    const name = [...roles].sort().join(' ');
    let mask = this.masks.get(name);
    if (!mask) {
      mask = new BitSet();
      mask.fit(this.slotCount);
      for (const slot of this.order) if (roles.includes(this.roleAt(slot))) mask.set(slot, true);
      this.masks.set(name, mask);
    }
    return mask;
  }

  /** The rules in order of precedence. */
  rulesInOrder(): KeyedRule[] {
    return [...this.rules.values()].sort(byKey);
  }

  // Primitives of operations, see operations/registry.ts.

  /** Sets the input of a cell. Gives what statistics need to know of it before. */
  setInput(column: number, slot: number, input: string): CellBefore {
    const store = this.column(column);
    const before = store.cellAt(slot);
    store.set(slot, input, this.roleAt(slot) === 'header');
    return before;
  }

  /** Sets the own style of a cell; null removes it. */
  setStyle(column: number, slot: number, style: Style | null): void {
    const { styles } = this.column(column);
    if (style) styles.set(slot, style);
    else styles.delete(slot);
  }

  /** Adds rows whose ids are new, each where its key belongs. */
  addRows(rows: readonly StoredRow[]): void {
    const slots = rows.map((row) => this.addSlot(row));
    slots.forEach((slot, at) => this.fillSlot(slot, rows[at]!));
    this.place(slots);
  }

  dropSlots(slots: readonly number[]): void {
    const gone = new Set(slots);
    for (const slot of slots) {
      this.slotOfId.delete(this.ids[slot]!);
      this.roles[slot] = REMOVED;
      for (const mask of this.masks.values()) mask.set(slot, false);
    }
    this.order = this.order.filter((slot) => !gone.has(slot));
    this.positions = null;
  }

  /** Sets the order key of a row; `sortRows` is to be called after the last one. */
  setKey(slot: number, key: string): void {
    this.keys[slot] = key;
  }

  /** Inputs are read again: cells of a header are text. */
  setRole(slot: number, role: RowRole): void {
    this.roles[slot] = roleCode(role);
    for (const [name, mask] of this.masks) mask.set(slot, name.split(' ').includes(role));
    for (const column of this.columns) column.set(slot, column.inputAt(slot), role === 'header');
  }

  /** Changes the format of a row; null removes a part of it. */
  patchFormat(slot: number, about: NullableAbout): void {
    this.setAbout(slot, { ...this.rowFormat(slot), ...about });
  }

  /** Sets the fields, in their new order; each keeps its column, and a new one gets an empty column. */
  arrangeFields(fields: readonly Field[]): void {
    const stores = new Map(this.fieldList.map(({ id }, column) => [id, this.column(column)]));
    this.columns = fields.map(({ id }) => {
      const store = stores.get(id) ?? new Column(this.settings);
      store.fit(this.slotCount);
      return store;
    });
    this.useFields(fields);
  }

  /** Sorts the rows after keys have changed. */
  sortRows(): void {
    this.order.sort(this.bySlot);
    this.positions = null;
  }

  private setAbout(slot: number, about: NullableAbout): void {
    const given = compactFormat(about);
    if (given) this.abouts.set(slot, given);
    else this.abouts.delete(slot);
  }

  /** The row of a slot as it is stored and sent. */
  storedRow(slot: number): StoredRow {
    const cells: Record<FieldId, string> = {};
    this.columns.forEach((column, at) => {
      const input = column.inputAt(slot);
      if (input !== '') cells[this.field(at).id] = input;
    });
    const about = this.storedAbout(slot);
    return { id: this.ids[slot]!, key: this.keys[slot]!, role: this.roleAt(slot), cells, ...(about ? { about } : {}) };
  }

  private storedAbout(slot: number): RowAbout | undefined {
    const styles: Record<FieldId, Style> = {};
    this.columns.forEach((column, at) => {
      const style = column.styles.get(slot);
      if (style) styles[this.fieldList[at]!.id] = style;
    });
    const about = { ...this.abouts.get(slot), ...(Object.keys(styles).length ? { styles } : {}) };
    return Object.keys(about).length ? about : undefined;
  }

  /**
   * Adds a row whose cells are set by the caller, column by column: the quick way in for a whole sheet. Rows must come
   * in order, before anything else is asked of the sheet.
   */
  appendRow(row: Omit<StoredRow, 'cells'>): number {
    const slot = this.addSlot(row);
    this.order.push(slot);
    return slot;
  }

  /** Takes over all rows of an empty sheet, top to bottom; the columns are loaded by the caller. `roles` has codes. */
  loadRows({ ids, keys, roles }: { ids: RowId[]; keys: string[]; roles: Uint8Array }): void {
    const rows = ids.length;
    this.ids = ids;
    this.keys = keys;
    this.roles = new Uint8Array(Math.max(64, rows)).fill(REMOVED);
    this.roles.set(roles);
    this.slotCount = rows;
    this.order = Array.from(ids, (_, slot) => slot);
    this.slotOfId.reserve(rows);
    ids.forEach((id, slot) => this.slotOfId.set(id, slot));
    this.reserve(0);
  }

  /** Sets the format of a row. */
  setRowFormat(slot: number, { styles, ...about }: RowAbout): void {
    this.setAbout(slot, about);
    for (const [field, style] of Object.entries(styles ?? {}))
      this.columns[this.columnOfId.get(field) ?? -1]?.styles.set(slot, style);
  }

  /** Makes room for a number of rows at once. */
  reserve(rows: number): void {
    for (const column of this.columns) column.fit(this.slotCount + rows);
  }

  private addSlot({ id, key, role }: Omit<StoredRow, 'cells'>): number {
    const slot = this.slotCount++;
    if (slot >= this.roles.length) {
      const roles = new Uint8Array(this.roles.length * 2).fill(REMOVED);
      roles.set(this.roles);
      this.roles = roles;
    }
    this.roles[slot] = roleCode(role);
    this.ids[slot] = id;
    this.keys[slot] = key;
    this.slotOfId.set(id, slot);
    if (this.slotCount > (this.columns[0]?.codes.length ?? 0)) this.reserve(1);
    for (const [name, mask] of this.masks) {
      mask.fit(this.slotCount);
      mask.set(slot, name.split(' ').includes(role));
    }
    this.positions = null;
    return slot;
  }

  private fillSlot(slot: number, row: StoredRow): void {
    this.columns.forEach((column, at) => column.set(slot, row.cells[this.field(at).id] ?? '', row.role === 'header'));
    if (row.about) this.setRowFormat(slot, row.about);
  }

  /** Puts new slots where their keys belong; rows that arrive together usually belong together, mostly at the end. */
  private place(slots: readonly number[]): void {
    const last = this.order.at(-1);
    const sorted = [...slots].sort(this.bySlot);
    const atEnd = last === undefined || sorted.length === 0 || this.bySlot(last, sorted[0]!) < 0;
    this.order = this.order.concat(sorted);
    this.positions = null;
    if (!atEnd) this.sortRows();
  }

  private readonly bySlot = (a: number, b: number): number =>
    compareKeys(this.keys[a]!, this.keys[b]!) || compareKeys(this.ids[a]!, this.ids[b]!);
}
