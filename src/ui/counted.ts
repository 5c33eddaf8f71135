/** A count with its noun: "1 cell", "1,200 cells". */
export const counted = (count: number, one: string): string =>
  `${count.toLocaleString('en')} ${one}${count === 1 ? '' : 's'}`;
