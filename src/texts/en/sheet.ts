// Texts of the interface in English: ICU messages by key.
export const sheet = {
  sheetCannotShown: 'This sheet cannot be shown',
  tryAgain: 'Try again',
  allSheets: 'All sheets',
  restoreMine: 'Restore mine',
  keepTheirs: 'Keep theirs',
  iSee: 'I see',
  peopleHereNow: 'People here now',
  andMoreMore: 'and {more, number} more',
  legend: 'Legend',
  previewAsAAs: 'Preview as a {as, select, filler {filler} other {viewer}}.',
  exitPreview: 'Exit preview',
  viewsOfTheSheet: 'Views of the sheet',
  whoIsEmptiedEnteredTheirs:
    '{who} {isEmptied, select, true {emptied} other {entered “{theirs}” in}} {cell} at the same time as you entered “{mine}”. The later entry stands.',
  somebody: 'Somebody',
  nameRoleAtCell: '{name}, {role}, at {cell}',
  opening: 'Opening…',
  notOpen: 'Not open',
  offlinePendingChangesWait:
    'Offline: {pending, plural, =0 {trying again} one {# change waits here} other {# changes wait here}}',
  busyPendingChangesWait:
    'Server busy: {pending, plural, one {# change waits here} other {# changes wait here}} and will be saved',
  saving: 'Saving…',
  liveAllSaved: 'Live, all saved',
  sheet: 'Sheet',
  findings: 'Findings',
  history: 'History',
  textNotOneValues:
    '“{text}” is not one of the values of {label}, so it was not entered: {values}{isCut, select, true { and others} other {}}. The list is in the menu of fields.',
  cellLinkNoLonger: 'The cell in the link no longer exists.',
  countDuplicateRecordsRemoved:
    '{count, plural, =0 {No two records are the same.} one {# duplicate record removed.} other {# duplicate records removed.}}',
  mergedCellShowsFirst:
    'The merged cell shows the first of these; the others are kept out of sight, and splitting brings them back.',
  copyOneRangeTime: 'Copy one range at a time.',
  copyStyleCellFirst: 'Copy the style of a cell first.',
  thereNoCellRange: 'There is no cell, range, name or field “{text}” in this sheet.',
} as const;
