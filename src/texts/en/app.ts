// Texts of the interface in English: ICU messages by key.
export const app = {
  signSeeWhatYou: 'Sign in to see what you have asked for.',
  yourAccountAuxesis: 'Your account · Auxesis',
  findingsAuxesis: 'Findings · Auxesis',
  auxesis: 'Auxesis',
  rulesOverSharedSheets: 'Rules over shared sheets, so that the records that matter stand out',
  outboxAuxesis: 'Outbox · Auxesis',
  signInAuxesis: 'Sign in · Auxesis',
  nameItsFindings: '{name}, its findings',
  nameItsHistory: '{name}, its history',
  nameAuxesis: '{name} · Auxesis',
  nameToPrint: '{name}, to print',
} as const;
