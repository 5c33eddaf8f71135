// Texts of the interface in English: ICU messages by key.
export const grid = {
  cellContent: 'Cell content',
  sheet: 'Sheet',
  columnPositionFormulaGives: 'For {column}{position, number, ::group-off} the formula gives {text}: {verdict}',
  barOfBar: 'bar of {bar}',
  blank: 'blank',
  trialOf: 'trial of {column}',
} as const;
