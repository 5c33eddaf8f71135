/** The number of an input that is a number in its shortest form, so that the number gives the input; NaN for others. */
export function plainNumber(input: string): number {
  const number = Number(input);
  return Number.isFinite(number) && String(number) === input ? number : NaN;
}
