// Texts of the interface in English: ICU messages by key.
export const rovider = {
  auxesis: 'auxesis',
  rulesOverSharedSheets: 'rulesOverSharedSheets',
} as const;
