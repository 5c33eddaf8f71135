/**
 * Why a file cannot be read or written, in words for the person who asked. Thrown inside a reader or writer, and caught
 * where it was asked for.
 */
export class BadFile extends Error {
  constructor(
    message: string,
    /** The place in the file: a line, a record, a cell. Empty for the file as a whole. */
    readonly place = '',
  ) {
    super(message);
  }

  /** The place and what is wrong there, as one sentence. */
  get told(): string {
    return this.place ? `${this.place}: ${this.message}` : this.message;
  }
}
