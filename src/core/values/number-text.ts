/** A number with at most 15 significant digits: beyond them a double says more than it knows. */
export function numberText(value: number): string {
  const text = String(Number(value.toPrecision(15)));
  return text.includes('e') ? text.toUpperCase() : text;
}
