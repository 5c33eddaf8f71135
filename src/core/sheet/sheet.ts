import { BitSet } from './bit-set';
import type { CellInput, Operation, StoredRow, StoredRule } from './change';
import { Column } from './column';
import type { FieldId, RowId, RuleId } from './ids';
import { REMOVED, ROW_ROLES, roleCode, type RowRole } from './row-role';
import type { DateOrder } from '../values/read-date';

export interface Field {
  readonly id: FieldId;
  readonly widthPx: number;
  /** Number format (UTS #35) of the field's numbers, or null to show them as typed. */
  readonly format: string | null;
  /** The words after a value, such as mg/L, for sentences and axes. */
  readonly unit: string | null;
}

export interface SheetSettings {
  readonly dates?: DateOrder;
  /** Time zone (IANA name) that says which day is today; UTC by default. */
  readonly zone?: string;
  /** First day of the week, 0 for Monday (default). */
  readonly firstWeekday?: number;
}

/** What an operation touched, so that rules are evaluated again only where it matters. */
export type Effect =
  | { readonly kind: 'cell'; readonly column: number; readonly slot: number; readonly before: CellBefore }
  | { readonly kind: 'rows'; readonly slots: readonly number[] }
  | { readonly kind: 'rules' };

/** The cell's number (NaN for none) and tag before an edit, from which running statistics are corrected. */
export interface CellBefore {
  readonly number: number;
  readonly tag: number;
  readonly code: number;
}

export interface Applied {
  readonly effects: readonly Effect[];
  readonly inverse: readonly Operation[];
}

/**
 * A sheet in memory. Rows live in *slots* that never move: a new row takes the next slot, a removed row leaves its slot
 * marked, and `order` lists the slots from top to bottom. So columns, bit sets and statistics stay valid when rows are
 * inserted, moved or removed. Memory per cell: 13 bytes, and the distinct inputs of each field once.
 */
export class Sheet {
  readonly columns: Column[];
  readonly rules = new Map<RuleId, StoredRule>();
  /** Slots used so far, those of removed rows included. */
  slotCount = 0;
  /** Slots from top to bottom. */
  order: number[] = [];
  roles = new Uint8Array(64).fill(REMOVED);
  private readonly ids: RowId[] = [];
  private readonly keys: string[] = [];
  private readonly slotOfId = new Map<RowId, number>();
  private readonly columnOfId: ReadonlyMap<FieldId, number>;
  private positions: Int32Array | null = null;
  private readonly masks = new Map<string, BitSet>();

  constructor(
    readonly fields: readonly Field[],
    readonly settings: SheetSettings = {},
  ) {
    this.columns = fields.map(() => new Column(settings));
    this.columnOfId = new Map(fields.map((field, column) => [field.id, column]));
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
  rulesInOrder(): StoredRule[] {
    return [...this.rules.values()].sort((a, b) => compareKeys(a.key, b.key) || compareKeys(a.id, b.id));
  }

  /** Applies an operation and gives what it touched and how to take it back. Parts that no longer exist are passed over. */
  apply(operation: Operation): Applied {
    switch (operation.kind) {
      case 'set-cells':
        return this.setCells(operation.cells);
      case 'insert-rows':
        return this.insertRows(operation.rows);
      case 'remove-rows':
        return this.removeRows(operation.rows);
      case 'put-rules':
        return this.putRules(operation.rules);
      case 'remove-rules':
        return this.removeRules(operation.rules);
    }
  }

  private setCells(cells: readonly CellInput[]): Applied {
    const effects: Effect[] = [];
    const undo: CellInput[] = [];
    for (const { row, field, input } of cells) {
      const slot = this.slotOfId.get(row);
      const column = this.columnOfId.get(field);
      if (slot === undefined || column === undefined) continue;
      const store = this.columns[column]!;
      undo.push({ row, field, input: store.inputAt(slot) });
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
    return { effects: [{ kind: 'rows', slots }], inverse: fresh.length ? [{ kind: 'remove-rows', rows: fresh.map((row) => row.id) }] : [] };
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
    return { effects: [{ kind: 'rows', slots }], inverse: rows.length ? [{ kind: 'insert-rows', rows }] : [] };
  }

  private putRules(rules: readonly StoredRule[]): Applied {
    const before = rules.flatMap((rule) => this.rules.get(rule.id) ?? []);
    const added = rules.filter((rule) => !this.rules.has(rule.id)).map((rule) => rule.id);
    for (const rule of rules) this.rules.set(rule.id, rule);
    return { effects: [{ kind: 'rules' }], inverse: ruleInverse(before, added) };
  }

  private removeRules(ids: readonly RuleId[]): Applied {
    const before = ids.flatMap((id) => this.rules.get(id) ?? []);
    for (const id of ids) this.rules.delete(id);
    return { effects: [{ kind: 'rules' }], inverse: ruleInverse(before, []) };
  }

  /** The row of a slot as it is stored and sent. */
  storedRow(slot: number): StoredRow {
    const cells: Record<FieldId, string> = {};
    this.columns.forEach((column, at) => {
      const input = column.inputAt(slot);
      if (input !== '') cells[this.fields[at]!.id] = input;
    });
    return { id: this.ids[slot]!, key: this.keys[slot]!, role: this.roleAt(slot), cells };
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

  /** Makes room for so many rows at once. */
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
  }

  /** Puts new slots where their keys belong; rows that arrive together usually belong together, mostly at the end. */
  private place(slots: readonly number[]): void {
    const last = this.order.at(-1);
    const byKey = (a: number, b: number) => compareKeys(this.keys[a]!, this.keys[b]!) || compareKeys(this.ids[a]!, this.ids[b]!);
    const sorted = [...slots].sort(byKey);
    const atEnd = last === undefined || sorted.length === 0 || byKey(last, sorted[0]!) < 0;
    this.order = this.order.concat(sorted);
    if (!atEnd) this.order.sort(byKey);
    this.positions = null;
  }
}

function ruleInverse(before: readonly StoredRule[], added: readonly RuleId[]): Operation[] {
  const inverse: Operation[] = [];
  if (added.length) inverse.push({ kind: 'remove-rules', rules: added });
  if (before.length) inverse.push({ kind: 'put-rules', rules: before });
  return inverse;
}

const compareKeys = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);
