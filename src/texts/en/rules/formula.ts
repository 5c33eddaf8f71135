// Texts of the interface in English: ICU messages by key.
export const formula = {
  howItReadsElsewhere: 'How it reads elsewhere',
  atCellAddressReads: 'at {cellAddress} <code>{reads}</code>',
  readOneCellFurther: 'Read it one cell further down',
  readOneCellFurtherRight: 'Read it one cell further right',
  tab: 'Tab',
  enter: 'Enter',
  formulaBeginsGoes: 'Type the rest of the formula after =.',
  messageCharacterAt: '{message} (character {at, number})',
} as const;
