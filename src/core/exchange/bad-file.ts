/**
 * Why a file cannot be read, in words for the person who brought it. Thrown inside a reader, and caught where reading
 * was asked for.
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
