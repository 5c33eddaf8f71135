/** Kept, as making one takes longer than a hundred uses of it. */
const WHOLE = new Intl.NumberFormat('en');

/** A count, with its thousands set apart: "1,200". */
export const inDigits = (count: number): string => WHOLE.format(count);

/** A count with its noun: "1 cell", "1,200 cells". */
export const counted = (count: number, one: string): string => `${inDigits(count)} ${one}${count === 1 ? '' : 's'}`;
