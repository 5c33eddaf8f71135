const DIGITS = 15;

/** A number with at most 15 significant digits: beyond them a double says more than it knows. */
export function numberText(value: number): string {
  // Whose shortest form has no more digits is that number.
  const shortest = String(value);
  if (shortest.length <= DIGITS && !shortest.includes('e')) return shortest;
  const text = String(Number(value.toPrecision(DIGITS)));
  return text.includes('e') ? text.toUpperCase() : text;
}
