import { parseMessage } from './parse-message';
import { itemAt } from '../core/values/item-at';
import type { RowAbout, StoredRow } from '../core/sheet/change';
import type { StoredRule } from '../core/rules/shape/stored-rule';
import type { FieldId, SheetId } from '../core/sheet/ids';
import type { Field } from '../core/sheet/field';
import { Sheet } from '../core/sheet/sheet';
import type { SheetSettings } from '../core/sheet/sheet-settings';
import type { SheetPart } from '../core/sheet/sheet-part';
import { ROW_ROLES, roleCode } from '../core/sheet/row-role';

/*
 * A sheet on its way to the engine. Layout, all little-endian:
 *   u32        byte length of the head
 *   head       JSON, UTF-8: what the sheet is, row ids and keys, and each column's distinct inputs
 *   padding    to a multiple of 4
 *   u8 × rows  roles, padded to a multiple of 4
 *   u32 × rows one array a column: which of its distinct inputs each row holds
 * The distinct inputs are read (as numbers, dates...) once each, when the sheet is unpacked.
 */
const VERSION = 2;

/** Of a distinct input: not read yet, or a number kept alone; else its code. */
const UNREAD = -1;
const PLAIN = -2;

export interface PackedHead {
  readonly v: number;
  readonly id: SheetId;
  readonly name: string;
  readonly settings: SheetSettings;
  readonly sequence: number;
  /** The moment (milliseconds of the Unix epoch) that the sheet is shown as of; absent for now. */
  readonly asOf?: number;
  readonly fields: readonly Field[];
  readonly rules: readonly StoredRule[];
  readonly parts: readonly SheetPart[];
  readonly rowIds: readonly string[];
  readonly rowKeys: readonly string[];
  readonly dictionaries: readonly (readonly string[])[];
  /** Formats of rows, by position: few have any. */
  readonly abouts: readonly (readonly [number, RowAbout])[];
}

/** The parts of the head that come from the rows. */
type Gathered = 'rowIds' | 'rowKeys' | 'dictionaries' | 'abouts';

/** Gathers rows, top to bottom, into the packed form. */
export class SheetPacker {
  private readonly ids: string[] = [];
  private readonly keys: string[] = [];
  private readonly roles: number[] = [];
  private readonly abouts: (readonly [number, RowAbout])[] = [];
  private readonly columns: { field: FieldId; codes: number[]; inputs: string[]; codeOf: Map<string, number> }[];

  constructor(private readonly about: Omit<PackedHead, 'v' | Gathered>) {
    this.columns = about.fields.map(({ id }) => ({ field: id, codes: [], inputs: [''], codeOf: new Map([['', 0]]) }));
  }

  add({ id, key, role, cells, about }: StoredRow): void {
    if (about) this.abouts.push([this.ids.length, about]);
    this.ids.push(id);
    this.keys.push(key);
    this.roles.push(roleCode(role));
    for (const column of this.columns) {
      const input = cells[column.field] ?? '';
      let code = column.codeOf.get(input);
      if (code === undefined) {
        code = column.inputs.push(input) - 1;
        column.codeOf.set(input, code);
      }
      column.codes.push(code);
    }
  }

  pack(): Uint8Array<ArrayBuffer> {
    const head: PackedHead = {
      v: VERSION,
      ...this.about,
      rowIds: this.ids,
      rowKeys: this.keys,
      dictionaries: this.columns.map((column) => column.inputs),
      abouts: this.abouts,
    };
    const headBytes = new TextEncoder().encode(JSON.stringify(head));
    const rolesAt = toWord(4 + headBytes.length);
    const codesAt = toWord(rolesAt + this.ids.length);
    const bytes = new Uint8Array(codesAt + this.columns.length * this.ids.length * 4);
    new DataView(bytes.buffer).setUint32(0, headBytes.length, true);
    bytes.set(headBytes, 4);
    bytes.set(this.roles, rolesAt);
    this.columns.forEach(({ codes }, at) =>
      new Uint32Array(bytes.buffer, codesAt + at * codes.length * 4, codes.length).set(codes),
    );
    return bytes;
  }
}

/**
 * The sheet, with its rules, and where in its log it stands. Throws a RangeError where the bytes are not of this
 * version.
 */
export function unpackSheet(buffer: ArrayBuffer): { sheet: Sheet; head: Omit<PackedHead, Gathered> } {
  const headLength = new DataView(buffer).getUint32(0, true);
  const head = parseMessage<PackedHead>(new TextDecoder().decode(new Uint8Array(buffer, 4, headLength)));
  if (head.v !== VERSION) throw new RangeError(`packed sheet of version ${head.v}; this engine reads ${VERSION}`);
  const { rowIds, rowKeys, dictionaries, abouts, ...rest } = head;
  const opened = new Sheet(head.fields, head.settings);
  const rows = rowIds.length;
  const rolesAt = toWord(4 + headLength);
  const roles = new Uint8Array(buffer, rolesAt, rows);
  opened.reserve(rows);
  rowIds.forEach((id, at) => opened.appendRow({ id, key: rowKeys[at]!, role: ROW_ROLES[roles[at]!]! }));
  const header = roleCode('header');
  dictionaries.forEach((inputs, column) => {
    const codes = new Uint32Array(buffer, toWord(rolesAt + rows) + column * rows * 4, rows);
    const store = opened.column(column);
    const known = new Int32Array(inputs.length).fill(UNREAD);
    const numbers = new Float64Array(inputs.length);
    for (let slot = 0; slot < rows; slot++) {
      const code = codes[slot]!;
      const input = itemAt(inputs, code);
      if (roles[slot] === header) {
        store.set(slot, input, true);
        continue;
      }
      if (known[code] === UNREAD) {
        numbers[code] = store.plainNumber(input);
        known[code] = Number.isNaN(numbers[code]) ? store.codeFor(input, false) : PLAIN;
      }
      if (known[code] === PLAIN) store.setPlain(slot, numbers[code] ?? NaN);
      else store.place(slot, known[code] ?? 0);
    }
  });
  for (const [slot, about] of abouts) opened.setRowFormat(slot, about);
  opened.parts.put(head.parts);
  opened.rules.put(head.rules);
  return { sheet: opened, head: rest };
}

const toWord = (bytes: number): number => (bytes + 3) & ~3;
