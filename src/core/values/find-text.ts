/**
 * Needles up to this length are left to the engine, whose search may look at each place as often as the needle is long.
 */
const LONG = 64;

/**
 * Where a text begins in another at or after `from`, in UTF-16 code units; -1 where it does not. In time linear in both
 * lengths, also for texts made to be slow such as `aaaab` in `aaaaaaaa` (Knuth, Morris, Pratt 1977).
 */
export function findText(text: string, wanted: string, from = 0): number {
  if (wanted.length <= LONG) return text.indexOf(wanted, from);
  return findUnits(
    { length: text.length, at: (place) => text.charCodeAt(place) },
    { length: wanted.length, at: (place) => wanted.charCodeAt(place) },
    from,
  );
}

/** Something with a value at each place. */
export interface Units {
  readonly length: number;
  at(place: number): unknown;
}

/** The same for lists of any values that are compared with `===`. */
export function findUnits(units: Units, wanted: Units, from = 0): number {
  if (wanted.length === 0) return from <= units.length ? from : -1;
  const falls = fallsOf(wanted);
  let met = 0;
  for (let place = from; place < units.length; place++) {
    const unit = units.at(place);
    while (met > 0 && wanted.at(met) !== unit) met = falls[met - 1]!;
    if (wanted.at(met) === unit) met++;
    if (met === wanted.length) return place - met + 1;
  }
  return -1;
}

/** For each place the length of the prefix that is also a suffix of the text up to it. */
function fallsOf(wanted: Units): Uint32Array {
  const falls = new Uint32Array(wanted.length);
  let met = 0;
  for (let place = 1; place < wanted.length; place++) {
    const unit = wanted.at(place);
    while (met > 0 && wanted.at(met) !== unit) met = falls[met - 1]!;
    if (wanted.at(met) === unit) met++;
    falls[place] = met;
  }
  return falls;
}
