// Texts of the interface in English: ICU messages by key.
export const fill = {
  opening: 'Opening…',
  firstMAXROWSRows: 'The first {MAX_ROWS, number} rows. The others are on the sheet.',
  rowPosition: 'Row {position, number, ::group-off}',
} as const;
