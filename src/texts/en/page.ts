// Texts of the interface in English: ICU messages by key.
export const page = {
  allSheets: 'All sheets',
  auxesis: 'Auxesis',
} as const;
