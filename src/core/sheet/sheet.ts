import { BitSet } from '../values/bit-set';
import { mergeStyles, type Style } from '../looks/style';
import type { CellInput, CellStyle, Operation, RowAbout, RowChange, StoredRow, KeyedRule } from './change';
import { byKey, compareKeys } from './compare-keys';
import { Column } from './column';
import type { Applied, Effect } from './effect';
import type { Field } from './field';
import { KeyedItems } from './keyed-items';
import type { FieldId, RowId } from './ids';
import { fieldInverse, partInverse, ruleInverse } from './put-inverse';
import {
  aboutOf,
  changesAbout,
  compactFormat,
  NO_FORMAT,
  rowBefore,
  type NullableAbout,
  type OwnAbout,
} from './row-about';
import { nameKey, type NamedRange, type SheetPart } from './sheet-part';
import { REMOVED, ROW_ROLES, roleCode, type RowRole } from './row-role';
import type { SheetSettings } from './sheet-settings';

/**
 * A sheet in memory. Rows live in *slots* that never move: a new row takes the next slot, a removed row leaves its slot
 * marked, and `order` lists the slots from top to bottom. So columns, bit sets and statistics stay valid when rows are
 * inserted, moved or removed. One file, since every operation needs the same private order, keys and slots. Memory per
 * cell: 13 bytes, and the distinct inputs of each field once.
 */
export class Sheet {
  /** From left to right, as the fields. */
  columns: readonly Column[];
  readonly rules = new KeyedItems<KeyedRule>();
  /** Slots used so far, those of removed rows included. */
  slotCount = 0;
  /** Slots from top to bottom. */
  order: number[] = [];
  roles = new Uint8Array(64).fill(REMOVED);
  private readonly ids: RowId[] = [];
  private readonly keys: string[] = [];
  private readonly slotOfId = new Map<RowId, number>();
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
      this.columns[column]!.styles.get(slot),
    ]);
  }

  get rowCount(): number {
    return this.order.length;
  }

  findColumn(id: FieldId): number | undefined {
    return this.columnOfId.get(id);
  }

  findSlot(id: RowId): number | undefined {
    return this.slotOfId.get(id);
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
      this.positions = new Int32Array(this.slotCount).fill(-1);
      this.order.forEach((member, position) => (this.positions![member] = position));
    }
    return this.positions[slot]!;
  }

  /** Positions of the first and the last record; `last` is before `first` where there is none. */
  recordSpan(): { readonly first: number; readonly last: number } {
    const isRecord = (slot: number) => this.roleAt(slot) === 'record';
    const first = this.order.findIndex(isRecord);
    return { first: Math.max(0, first), last: first < 0 ? -1 : this.order.findLastIndex(isRecord) };
  }

  /** The field's label: the text of its cell in the first header row, or undefined where there is none. */
  labelOf(column: number): string | undefined {
    const header = this.headerSlot();
    const label = header === undefined ? '' : this.columns[column]!.entryAt(header).shown.trim();
    return label || undefined;
  }

  private headerSlot(): number | undefined {
    for (let position = 0; position < Math.min(this.order.length, 20); position++)
      if (this.roleAt(this.order[position]!) === 'header') return this.order[position];
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

  /**
   * Applies an operation and gives what it touched and how to take it back. Parts that no longer exist are passed over.
   */
  apply(operation: Operation): Applied {
    switch (operation.kind) {
      case 'set-cells':
        return this.setCells(operation.cells);
      case 'insert-rows':
        return this.insertRows(operation.rows);
      case 'remove-rows':
        return this.removeRows(operation.rows);
      case 'change-rows':
        return this.changeRows(operation.rows);
      case 'put-fields':
        return this.putFields(operation.fields);
      case 'remove-fields':
        return this.removeFields(operation.fields);
      case 'set-styles':
        return this.setStyles(operation.cells);
      case 'put-parts':
        return { effects: [LAYOUT], inverse: partInverse(this.parts.put(operation.parts)) };
      case 'remove-parts':
        return { effects: [LAYOUT], inverse: partInverse({ before: this.parts.take(operation.parts), added: [] }) };
      case 'put-rules':
        return { effects: [{ kind: 'rules' }], inverse: ruleInverse(this.rules.put(operation.rules)) };
      case 'remove-rules':
        return {
          effects: [{ kind: 'rules' }],
          inverse: ruleInverse({ before: this.rules.take(operation.rules), added: [] }),
        };
    }
  }

  private setCells(cells: readonly CellInput[]): Applied {
    const effects: Effect[] = [];
    const undo: CellInput[] = [];
    for (const { row, field, input, was } of cells) {
      const slot = this.slotOfId.get(row);
      const column = this.columnOfId.get(field);
      if (slot === undefined || column === undefined) continue;
      const store = this.columns[column]!;
      const held = store.inputAt(slot);
      if (was !== undefined && was !== held) continue;
      undo.push({ row, field, input: held, ...(was === undefined ? {} : { was: input }) });
      const before = { number: store.numbers[slot]!, tag: store.tags[slot]!, code: store.codes[slot]! };
      store.set(slot, input, this.roleAt(slot) === 'header');
      effects.push({ kind: 'cell', column, slot, before });
    }
    return { effects, inverse: undo.length ? [{ kind: 'set-cells', cells: undo.reverse() }] : [] };
  }

  private insertRows(rows: readonly StoredRow[]): Applied {
    const fresh = rows.filter((row) => !this.slotOfId.has(row.id));
    const slots = fresh.map((row) => this.addSlot(row));
    slots.forEach((slot, at) => this.fillSlot(slot, fresh[at]!));
    this.place(slots);
    return {
      effects: [LAYOUT],
      inverse: fresh.length ? [{ kind: 'remove-rows', rows: fresh.map((row) => row.id) }] : [],
    };
  }

  private removeRows(ids: readonly RowId[]): Applied {
    const slots = ids.flatMap((id) => this.slotOfId.get(id) ?? []);
    const rows = slots.map((slot) => this.storedRow(slot));
    const gone = new Set(slots);
    for (const slot of slots) {
      this.slotOfId.delete(this.ids[slot]!);
      this.roles[slot] = REMOVED;
      for (const mask of this.masks.values()) mask.set(slot, false);
    }
    this.order = this.order.filter((slot) => !gone.has(slot));
    this.positions = null;
    return { effects: [LAYOUT], inverse: rows.length ? [{ kind: 'insert-rows', rows }] : [] };
  }

  private changeRows(changes: readonly RowChange[]): Applied {
    const undo: RowChange[] = [];
    const effects: Effect[] = [];
    let moves = false;
    for (const change of changes) {
      const slot = this.slotOfId.get(change.id);
      if (slot === undefined) continue;
      const { key, role } = change;
      undo.push(rowBefore({ key: this.keys[slot]!, role: this.roleAt(slot), about: this.rowFormat(slot) }, change));
      if (key !== undefined && key !== this.keys[slot]) {
        this.keys[slot] = key;
        moves = true;
      }
      if (role !== undefined && role !== this.roleAt(slot)) {
        this.setRole(slot, role);
        effects.push(LAYOUT);
      }
      if (
        change.style?.number !== undefined ||
        (change.style !== undefined && this.rowFormat(slot).style?.number !== undefined)
      )
        effects.push(LAYOUT);
      if (changesAbout(change)) this.setAbout(slot, { ...this.rowFormat(slot), ...aboutOf(change) });
    }
    if (moves) {
      this.sortRows();
      effects.push(LAYOUT);
    }
    return { effects, inverse: undo.length ? [{ kind: 'change-rows', rows: undo.reverse() }] : [] };
  }

  private setAbout(slot: number, about: NullableAbout): void {
    const given = compactFormat(about);
    if (given) this.abouts.set(slot, given);
    else this.abouts.delete(slot);
  }

  /** Inputs are read again: cells of a header are text. */
  private setRole(slot: number, role: RowRole): void {
    this.roles[slot] = roleCode(role);
    for (const [name, mask] of this.masks) mask.set(slot, name.split(' ').includes(role));
    for (const column of this.columns) column.set(slot, column.inputAt(slot), role === 'header');
  }

  private putFields(fields: readonly Field[]): Applied {
    const before = fields.flatMap(({ id }) => this.fieldList[this.columnOfId.get(id) ?? -1] ?? []);
    const added = fields.filter(({ id }) => !this.columnOfId.has(id)).map(({ id }) => id);
    const stores = new Map(this.fieldList.map(({ id }, column) => [id, this.columns[column]!]));
    const byId = new Map(this.fieldList.map((field) => [field.id, field]));
    for (const field of fields) byId.set(field.id, field);
    this.arrange([...byId.values()].sort(byKey), stores);
    return { effects: [LAYOUT], inverse: fieldInverse(before, added) };
  }

  /** Fields in their new order, each with its column; those that have none get an empty one. */
  private arrange(fields: readonly Field[], stores: ReadonlyMap<FieldId, Column>): void {
    this.columns = fields.map(({ id }) => {
      const store = stores.get(id) ?? new Column(this.settings);
      store.fit(this.slotCount);
      return store;
    });
    this.useFields(fields);
  }

  private removeFields(ids: readonly FieldId[]): Applied {
    const gone = new Set(ids);
    const before = this.fieldList.filter(({ id }) => gone.has(id));
    const cells: CellInput[] = before.flatMap(({ id }) => {
      const store = this.columns[this.columnOfId.get(id)!]!;
      return this.order.flatMap((slot) => {
        const input = store.inputAt(slot);
        return input === '' ? [] : { row: this.ids[slot]!, field: id, input };
      });
    });
    const styles = before.flatMap(({ id }) => {
      const store = this.columns[this.columnOfId.get(id)!]!;
      return [...store.styles].flatMap(([slot, style]) =>
        this.roles[slot] === REMOVED ? [] : { row: this.ids[slot]!, field: id, style },
      );
    });
    const stores = new Map(this.fieldList.map(({ id }, column) => [id, this.columns[column]!]));
    this.arrange(
      this.fieldList.filter(({ id }) => !gone.has(id)),
      stores,
    );
    const inverse: Operation[] = before.length ? [{ kind: 'put-fields', fields: before }] : [];
    if (cells.length) inverse.push({ kind: 'set-cells', cells });
    if (styles.length) inverse.push({ kind: 'set-styles', cells: styles });
    return { effects: before.length ? [LAYOUT] : [], inverse };
  }

  private setStyles(cells: readonly CellStyle[]): Applied {
    const undo: CellStyle[] = [];
    for (const { row, field, style } of cells) {
      const slot = this.slotOfId.get(row);
      const column = this.columnOfId.get(field);
      if (slot === undefined || column === undefined) continue;
      const { styles } = this.columns[column]!;
      undo.push({ row, field, style: styles.get(slot) ?? null });
      if (style) styles.set(slot, style);
      else styles.delete(slot);
    }
    // Rules that compare shown texts depend on number formats.
    const touches = [...cells, ...undo].some(({ style }) => style?.number !== undefined);
    return {
      effects: touches ? [LAYOUT] : [],
      inverse: undo.length ? [{ kind: 'set-styles', cells: undo.reverse() }] : [],
    };
  }

  /** The row of a slot as it is stored and sent. */
  storedRow(slot: number): StoredRow {
    const cells: Record<FieldId, string> = {};
    this.columns.forEach((column, at) => {
      const input = column.inputAt(slot);
      if (input !== '') cells[this.fields[at]!.id] = input;
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
    this.columns.forEach((column, at) => column.set(slot, row.cells[this.fields[at]!.id] ?? '', row.role === 'header'));
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

  private sortRows(): void {
    this.order.sort(this.bySlot);
    this.positions = null;
  }

  private readonly bySlot = (a: number, b: number): number =>
    compareKeys(this.keys[a]!, this.keys[b]!) || compareKeys(this.ids[a]!, this.ids[b]!);
}

const LAYOUT: Effect = { kind: 'layout' };
