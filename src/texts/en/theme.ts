// Texts of the interface in English: ICU messages by key.
export const theme = {
  useTheOtherColours: 'Use the {other, select, dark {dark} other {light}} colours',
  close: 'Close',
} as const;
