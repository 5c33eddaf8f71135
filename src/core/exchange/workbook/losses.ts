import { inDigits } from '../../values/counted';
/** Losses of a conversion, reported once for all cells of a kind, with the first of them. */
export class Losses {
  private readonly found = new Map<string, { count: number; readonly first: string }>();

  /** `what` reads on after “in B5” or “in 12 cells, first in B5”. */
  add(what: string, where = ''): void {
    const known = this.found.get(what);
    if (known) known.count++;
    else this.found.set(what, { count: 1, first: where });
  }

  get told(): string[] {
    return [...this.found].map(([what, { count, first }]) =>
      first === '' ? what : count === 1 ? `${what} (${first})` : `${what} (${inDigits(count)} times, first ${first})`,
    );
  }
}
