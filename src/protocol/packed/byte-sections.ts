/** Each section begins at a multiple of this, so that arrays of doubles can lie there. */
const ALIGNED = 8;

const aligned = (bytes: number): number => Math.ceil(bytes / ALIGNED) * ALIGNED;

/** An array type whose elements lie in a buffer as they are. */
interface ArrayType<A> {
  readonly BYTES_PER_ELEMENT: number;
  new (buffer: ArrayBuffer, at: number, length: number): A;
}

/** Puts arrays and texts one after another. Bytes lie as the machine has them, which is little-endian everywhere now. */
export class SectionWriter {
  private readonly sections: Uint8Array[] = [];

  add({ buffer, byteOffset, byteLength }: ArrayBufferView): void {
    this.sections.push(new Uint8Array(buffer, byteOffset, byteLength));
  }

  /** Adds texts as two sections: the length of each in UTF-16 units, and all of them in UTF-8. */
  addTexts(texts: readonly string[]): void {
    this.add(Uint32Array.from(texts, (text) => text.length));
    this.add(new TextEncoder().encode(texts.join('')));
  }

  /** In bytes, without what aligns them. */
  get lengths(): number[] {
    return this.sections.map(({ length }) => length);
  }

  get byteLength(): number {
    return this.sections.reduce((sum, { length }) => sum + aligned(length), 0);
  }

  /** Writes all sections into bytes, from a place that is aligned. */
  writeInto(bytes: Uint8Array, from: number): void {
    let at = from;
    for (const section of this.sections) {
      bytes.set(section, at);
      at += aligned(section.length);
    }
  }
}

/** Reads sections in the order in which they were written. */
export class SectionReader {
  private next = 0;
  private at: number;

  /** `from` is aligned; `lengths` are those that the writer gave. */
  constructor(
    private readonly buffer: ArrayBuffer,
    from: number,
    private readonly lengths: readonly number[],
  ) {
    this.at = from;
  }

  /** The next section where it lies, not a copy. Throws a RangeError where there is none. */
  array<A>(type: ArrayType<A>): A {
    const length = this.lengths[this.next++];
    if (length === undefined) throw new RangeError('The bytes end before what they should hold.');
    const found = new type(this.buffer, this.at, length / type.BYTES_PER_ELEMENT);
    this.at += aligned(length);
    return found;
  }

  /** The next texts. */
  texts(): string[] {
    const lengths = this.array(Uint32Array);
    const joined = new TextDecoder('utf-8', { ignoreBOM: true }).decode(this.array(Uint8Array));
    const texts = Array<string>(lengths.length);
    let at = 0;
    for (let text = 0; text < lengths.length; text++) texts[text] = joined.slice(at, (at += lengths[text] ?? 0));
    return texts;
  }
}
