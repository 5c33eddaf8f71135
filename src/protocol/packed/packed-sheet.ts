import type { LinkedHead } from '../linked-table';
import { parseMessage } from '../parse-message';
import type { RowAbout, StoredRow } from '../../core/sheet/change';
import type { StoredRule } from '../../core/rules/shape/stored-rule';
import type { SheetId } from '../../core/sheet/ids';
import type { Field } from '../../core/sheet/field';
import { Sheet } from '../../core/sheet/sheet';
import type { SheetSettings } from '../../core/sheet/sheet-settings';
import type { SheetPart } from '../../core/sheet/sheet-part';
import { itemAt } from '../../core/values/item-at';
import { roleCode } from '../../core/sheet/row-role';
import { SectionReader, SectionWriter } from './byte-sections';
import { CellsPacker, readCells, type CellsForm } from './packed-cells';

/*
 * A sheet on its way to the engine. Layout, all little-endian:
 *   u32        byte length of the head
 *   head       JSON, UTF-8: what the sheet is, and how its cells are to be read
 *   sections   each from a multiple of 8 on (see byte-sections.ts): the ids, keys and roles of the rows, and of each
 *              column its codes, distinct inputs and numbers
 * The distinct inputs are read (as numbers, dates...) once each, when the sheet is unpacked. Numbers beyond the first
 * thousand contents are numbers, and nothing is read.
 */
const VERSION = 3;

export interface PackedHead {
  readonly v: number;
  readonly id: SheetId;
  readonly name: string;
  readonly settings: SheetSettings;
  readonly sequence: number;
  /** The moment (milliseconds of the Unix epoch) that the sheet is shown as of; absent for now. */
  readonly asOf?: number;
  /** The table that its records are some rows of; absent where they are all there are. */
  readonly linked?: LinkedHead;
  readonly fields: readonly Field[];
  readonly rules: readonly StoredRule[];
  readonly parts: readonly SheetPart[];
  /** Formats of rows, by position: few have any. */
  readonly abouts: readonly (readonly [number, RowAbout])[];
  /** Headers: the position of each, and its cells, which are texts. */
  readonly headers: readonly (readonly [number, readonly string[]])[];
  readonly columns: readonly CellsForm[];
  /** Lengths of the sections in bytes. */
  readonly sections: readonly number[];
}

/** The parts of the head that come from the rows. */
type Gathered = 'abouts' | 'headers' | 'columns' | 'sections';

/** Gathers rows, top to bottom, into the packed form. */
export class SheetPacker {
  private readonly ids: string[] = [];
  private readonly keys: string[] = [];
  private readonly roles: number[] = [];
  private readonly abouts: (readonly [number, RowAbout])[] = [];
  private readonly headers: (readonly [number, readonly string[]])[] = [];
  private readonly columns: readonly CellsPacker[];

  constructor(private readonly about: Omit<PackedHead, 'v' | Gathered>) {
    this.columns = about.fields.map(() => new CellsPacker());
  }

  /** The sequence in whose state the sheet is packed. */
  get sequence(): number {
    return this.about.sequence;
  }

  add({ cells, ...row }: StoredRow): void {
    const { fields } = this.about;
    this.addCells(row, (at) => cells[itemAt(fields, at).id] ?? '');
  }

  /** Adds a row whose cells are given by the place of their field: without an object of them, which costs as much. */
  addCells({ id, key, role, about }: Omit<StoredRow, 'cells'>, inputAt: (at: number) => string): void {
    const isHeader = role === 'header';
    if (about) this.abouts.push([this.ids.length, about]);
    if (isHeader) this.headers.push([this.ids.length, this.columns.map((_, at) => inputAt(at))]);
    this.ids.push(id);
    this.keys.push(key);
    this.roles.push(roleCode(role));
    this.columns.forEach((column, at) => column.add(isHeader ? '' : inputAt(at)));
  }

  pack(): Uint8Array<ArrayBuffer> {
    const sections = new SectionWriter();
    sections.addTexts(this.ids);
    sections.addTexts(this.keys);
    sections.add(Uint8Array.from(this.roles));
    const columns = this.columns.map((column) => column.writeTo(sections));
    const { abouts, headers } = this;
    const head: PackedHead = { v: VERSION, ...this.about, abouts, headers, columns, sections: sections.lengths };
    const headBytes = new TextEncoder().encode(JSON.stringify(head));
    const sectionsAt = afterHead(headBytes.length);
    const bytes = new Uint8Array(sectionsAt + sections.byteLength);
    new DataView(bytes.buffer).setUint32(0, headBytes.length, true);
    bytes.set(headBytes, 4);
    sections.writeInto(bytes, sectionsAt);
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
  if (head.v !== VERSION) throw new RangeError('Auxesis has been updated since this page was opened. Reload the page.');
  const { abouts, headers, columns, sections: lengths, ...rest } = head;
  const sections = new SectionReader(buffer, afterHead(headLength), lengths);
  const opened = new Sheet(head.fields, head.settings);
  opened.loadRows({ ids: sections.texts(), keys: sections.texts(), roles: sections.array(Uint8Array) });
  columns.forEach((form, column) => opened.column(column).load(readCells(sections, form)));
  for (const [slot, inputs] of headers) inputs.forEach((input, at) => opened.column(at).set(slot, input, true));
  for (const [slot, about] of abouts) opened.setRowFormat(slot, about);
  opened.parts.put(head.parts);
  opened.rules.put(head.rules);
  return { sheet: opened, head: rest };
}

/** Where the sections begin. */
const afterHead = (headLength: number): number => (4 + headLength + 7) & ~7;
