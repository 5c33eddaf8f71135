/** "1 cell", "12 cells". */
export const counted = (count: number, one: string): string =>
  `${count.toLocaleString('en')} ${one}${count === 1 ? '' : 's'}`;
