import {
  BLANK_CELL,
  FIRST_INPUT,
  MANY_CONTENTS,
  PLAIN_CELL,
  plainNumber,
  type ColumnCells,
} from '../../core/sheet/column/column-cells';
import { itemAt } from '../../core/values/item-at';
import { TextIndex } from '../../core/values/text-index';
import type { SectionReader, SectionWriter } from './byte-sections';

/** How the sections of a column are to be read. */
export interface CellsForm {
  /** Bytes of each code. */
  readonly width: 1 | 2 | 4;
  /** Numbers are whole ones of 32 bits, to be divided by 10 to this power; null where they are doubles. */
  readonly decimals: number | null;
}

/** Numbers have at most this many decimals where they are packed as whole ones. */
const MOST_DECIMALS = 9;

/** Gathers the inputs of one field, top to bottom, as a column takes them (see column-cells.ts). */
export class CellsPacker {
  private codes = new Uint32Array(64);
  private count = 0;
  private numbers = new Float64Array(64);
  private numberCount = 0;
  private readonly inputs: string[] = [];
  private readonly index = new TextIndex((at) => itemAt(this.inputs, at));

  add(input: string): void {
    if (this.count === this.codes.length) {
      const { codes } = this;
      (this.codes = new Uint32Array(codes.length * 2)).set(codes);
    }
    this.codes[this.count++] = input === '' ? BLANK_CELL : this.codeOf(input);
  }

  private codeOf(input: string): number {
    const next = this.inputs.length;
    if (next >= MANY_CONTENTS && this.index.find(input) < 0) {
      const number = plainNumber(input);
      if (number === number) {
        this.addNumber(number);
        return PLAIN_CELL;
      }
    }
    const at = this.index.findOrSet(input, next);
    if (at === next) this.inputs.push(input);
    return at + FIRST_INPUT;
  }

  private addNumber(number: number): void {
    if (this.numberCount === this.numbers.length) {
      const { numbers } = this;
      (this.numbers = new Float64Array(numbers.length * 2)).set(numbers);
    }
    this.numbers[this.numberCount++] = number;
  }

  /** Adds the sections of the field. Returns how they are to be read. */
  writeTo(sections: SectionWriter): CellsForm {
    const codes = this.codes.subarray(0, this.count);
    const most = this.inputs.length + FIRST_INPUT;
    const width = most <= 0x100 ? 1 : most <= 0x10000 ? 2 : 4;
    sections.add(width === 1 ? Uint8Array.from(codes) : width === 2 ? Uint16Array.from(codes) : codes);
    sections.addTexts(this.inputs);
    const numbers = this.numbers.subarray(0, this.numberCount);
    const decimals = commonDecimals(numbers);
    sections.add(
      decimals === null ? numbers : Int32Array.from(numbers, (number) => Math.round(number * 10 ** decimals)),
    );
    return { width, decimals };
  }
}

/** The cells of a field as they were packed. */
export function readCells(sections: SectionReader, { width, decimals }: CellsForm): ColumnCells {
  const codes = readCodes(sections, width);
  const inputs = sections.texts();
  if (decimals === null) return { codes, inputs, numbers: sections.array(Float64Array) };
  const wholes = sections.array(Int32Array);
  const scale = 10 ** decimals;
  const numbers = new Float64Array(wholes.length);
  // Dividing rounds to the double nearest to the decimal number, which is the one that its digits stand for.
  for (let at = 0; at < wholes.length; at++) numbers[at] = (wholes[at] ?? 0) / scale;
  return { codes, inputs, numbers };
}

function readCodes(sections: SectionReader, width: CellsForm['width']): ColumnCells['codes'] {
  switch (width) {
    case 1:
      return sections.array(Uint8Array);
    case 2:
      return sections.array(Uint16Array);
    case 4:
      return sections.array(Uint32Array);
  }
}

/** The decimals with which numbers become whole ones of 32 bits that give them back; null where there are none. */
function commonDecimals(numbers: Float64Array): number | null {
  let decimals = 0;
  let scale = 1;
  let most = 0;
  for (const number of numbers) {
    while (Math.round(number * scale) / scale !== number) {
      if (++decimals > MOST_DECIMALS) return null;
      scale = 10 ** decimals;
    }
    most = Math.max(most, Math.abs(number));
  }
  return most * scale < 2 ** 31 - 1 ? decimals : null;
}
