import { parseMessage } from '../parse-message';
import { type ReaderRole, type Own } from '../../core/sharing/role';
import type { LookValues } from '../../core/looks/look';
import type { RuleMeaning } from '../../core/rules/shape/rule-meaning';
import type { CellInput } from '../../core/sheet/change';
import type { FieldId, RowId, RuleId } from '../../core/sheet/ids';
import type { RecordedChange } from '../recorded-change';

/*
 * A sheet for readers without rules: what they may see of it, and the look of each cell. Layout, all little-endian:
 *   u32        byte length of the packed sheet (see packed-sheet.ts), without rules
 *   the packed sheet, padded to a multiple of 4
 *   u32        byte length of the head
 *   head       JSON, UTF-8
 *   padding    to a multiple of 4
 *   u32 × rows one array a column: each cell's look, by its place among the looks of the head; 0 for none
 */

/** A look of cells: final properties, and words for it beside the value. */
export interface GivenLook {
  readonly properties: Readonly<Partial<LookValues>>;
  /** Names of rules, or for fillers how an answer was judged. */
  readonly says: readonly string[];
  /** The rules that made it, for those who get the legend. */
  readonly rules: readonly RuleId[];
}

export interface PaintedHead {
  /** The view of these looks: numbers of another view mean nothing here. */
  readonly view: string;
  /** A number that grows with each repaint. */
  readonly revision: number;
  readonly role: ReaderRole;
  readonly own: Own;
  readonly looks: readonly GivenLook[];
  /** For viewers; fillers get none. */
  readonly legend: readonly RuleMeaning[];
}

/** The differences for such a reader, on their way to the page. */
export interface Repaint {
  readonly revision: number;
  /** The sequence that it includes. */
  readonly sequence: number;
  /** The changes, of others and of the reader, that the reader gets. */
  readonly changes: readonly RecordedChange[];
  /** The results of formulas now. */
  readonly values: readonly CellInput[];
  /** Looks that are new to the reader, in the order of their numbers. */
  readonly looks: readonly GivenLook[];
  /** Cells with another look than before, and its number. */
  readonly cells: readonly (readonly [row: RowId, field: FieldId, look: number])[];
  /** The legend, where it says something else. */
  readonly legend?: readonly RuleMeaning[];
}

/** Joins the parts; `codes` has one array a column of the packed sheet, row by row. */
export function packPainted(
  packed: Uint8Array,
  head: PaintedHead,
  codes: readonly Uint32Array[],
): Uint8Array<ArrayBuffer> {
  const headBytes = new TextEncoder().encode(JSON.stringify(head));
  const headAt = toWord(4 + packed.length);
  const codesAt = toWord(headAt + 4 + headBytes.length);
  const rows = codes[0]?.length ?? 0;
  const bytes = new Uint8Array(codesAt + codes.length * rows * 4);
  const view = new DataView(bytes.buffer);
  view.setUint32(0, packed.length, true);
  bytes.set(packed, 4);
  view.setUint32(headAt, headBytes.length, true);
  bytes.set(headBytes, headAt + 4);
  codes.forEach((column, at) => new Uint32Array(bytes.buffer, codesAt + at * rows * 4, rows).set(column));
  return bytes;
}

/** Takes the parts apart. `codesOf` gives the looks of a column; `rows` is how many the packed sheet has. */
export function unpackPainted(buffer: ArrayBuffer): {
  packed: ArrayBuffer;
  head: PaintedHead;
  codesOf: (column: number, rows: number) => Uint32Array;
} {
  const view = new DataView(buffer);
  const packedLength = view.getUint32(0, true);
  const headAt = toWord(4 + packedLength);
  const headLength = view.getUint32(headAt, true);
  const head = parseMessage<PaintedHead>(new TextDecoder().decode(new Uint8Array(buffer, headAt + 4, headLength)));
  const codesAt = toWord(headAt + 4 + headLength);
  return {
    packed: buffer.slice(4, 4 + packedLength),
    head,
    codesOf: (column, rows) => new Uint32Array(buffer, codesAt + column * rows * 4, rows),
  };
}

const toWord = (bytes: number): number => (bytes + 3) & ~3;
