import { inDigits } from '../../values/counted';

/** Places that are listed for one kind of loss. */
const MAX_PLACES = 100;

/** What a conversion leaves out or changes: one kind of it, however often. */
export interface Loss {
  readonly what: string;
  readonly count: number;
  /** Where in the file, the first ones; none where it is about all of it. */
  readonly places: readonly string[];
}

/** A loss that happens once. */
export const oneLoss = (what: string): Loss => ({ what, count: 1, places: [] });

/** A loss as one line. */
export function lossLine({ what, count, places: [first] }: Loss): string {
  if (first === undefined) return what;
  return count === 1 ? `${what} (${first})` : `${what} (${inDigits(count)} times, first ${first})`;
}

/** Losses of a conversion, gathered by kind. */
export class Losses {
  private readonly found = new Map<string, { count: number; readonly places: string[] }>();

  add(what: string, where = ''): void {
    const known = this.found.get(what) ?? { count: 0, places: [] };
    known.count++;
    if (where !== '' && known.places.length < MAX_PLACES) known.places.push(where);
    this.found.set(what, known);
  }

  get told(): Loss[] {
    return [...this.found].map(([what, { count, places }]) => ({ what, count, places }));
  }
}
