// Texts of the interface in English: ICU messages by key.
export const fill = {
  opening: 'Opening…',
  firstMAXROWSRows: 'The first {MAX_ROWS, number} rows. The others are on the sheet.',
  filledOfAsked: '{filled, number} of {asked, number} filled in',
  allFilledIn: 'All {asked, number} filled in and saved. You can close this page.',
  rowPosition: 'Row {position, number, ::group-off}',
} as const;
