// Texts of the interface in English: ICU messages by key.
export const start = {
  firstSteps: 'First steps',
  closeTheFirstSteps: 'Close the first steps',
  pasteTypeTable: 'Paste or type a table',
  copyRowsAnywherePress:
    'Copy rows anywhere and paste them here, by Ctrl+V or “Edit”. The first row names the fields. A file is imported from',
  yourSheets: 'your sheets',
  sayWhatMatters: 'Say what matters',
  suchAsOxygenBelow: 'Such as “oxygen below 5 as alarm”.',
  newRule: 'New rule',
  share: 'Share it',
  linkReadFill: 'By link, to read or to fill in.',
  share2: 'Share',
  done: 'done',
} as const;
