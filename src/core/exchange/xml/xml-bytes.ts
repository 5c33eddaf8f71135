/** Letters that are turned into bytes at once. */
const AT_ONCE = 65_536;

/** Where the text stands in the one around it: no XML holds this sign. */
export const PLACE = '\0';

/** A long text that grows piece by piece, as UTF-8: bytes take less than the many short strings it is made of. */
export class XmlBytes {
  private readonly encoder = new TextEncoder();
  private readonly pieces: Uint8Array[] = [];
  private text = '';
  private length = 0;

  add(text: string): void {
    this.text += text;
    if (this.text.length >= AT_ONCE) this.encode();
  }

  private encode(): void {
    const bytes = this.encoder.encode(this.text);
    this.pieces.push(bytes);
    this.length += bytes.length;
    this.text = '';
  }

  /** A whole text with all of this in its place, which PLACE marks. */
  within(whole: string): Uint8Array<ArrayBuffer> {
    this.encode();
    const [begin = '', end = ''] = whole.split(PLACE);
    const [first, last] = [this.encoder.encode(begin), this.encoder.encode(end)];
    const all = new Uint8Array(first.length + this.length + last.length);
    all.set(first);
    let at = first.length;
    for (const piece of this.pieces.splice(0)) {
      all.set(piece, at);
      at += piece.length;
    }
    all.set(last, at);
    return all;
  }
}
