/**
 * Whether a UTF-16 code unit has the Unicode property White_Space (Unicode 15, PropList.txt); all of them are in the
 * basic plane.
 */
function isWhiteSpace(unit: number): boolean {
  if (unit <= 0x20) return unit === 0x20 || (unit >= 0x09 && unit <= 0x0d);
  if (unit < 0x1680) return unit === 0x85 || unit === 0xa0;
  return (
    unit === 0x1680 ||
    (unit >= 0x2000 && unit <= 0x200a) ||
    unit === 0x2028 ||
    unit === 0x2029 ||
    unit === 0x202f ||
    unit === 0x205f ||
    unit === 0x3000
  );
}

/**
 * A text without the Unicode white space at its ends. In time linear in its length: an expression such as `\s+$` looks
 * at each run of inner space again from each of its places.
 */
export function trimSpace(text: string): string {
  let from = 0;
  let to = text.length;
  while (from < to && isWhiteSpace(text.charCodeAt(from))) from++;
  while (to > from && isWhiteSpace(text.charCodeAt(to - 1))) to--;
  return text.slice(from, to);
}
