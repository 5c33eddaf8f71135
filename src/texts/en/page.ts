// Texts of the interface in English: ICU messages by key.
export const page = {
  allSheets: 'All sheets',
  auxesis: 'Auxesis',
  loading: 'Loading…',
  pageCouldNotOpened: 'This page could not be opened',
  somethingWentWrongServer: 'Something went wrong on the server. What was entered before is kept.',
  tryAgainMomentIf: 'Try again in a moment. If it still fails, tell the administrator of this server.',
  tryAgain: 'Try again',
} as const;
