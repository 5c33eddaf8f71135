// Texts of the interface in English: ICU messages by key.
export const grid = {
  cellContent: 'Cell content',
  sheet: 'Sheet',
  columnPositionFormulaGives: 'For {column}{position, number, ::group-off} the formula gives {text}: {verdict}',
  barOfBar: 'bar of {bar}',
  blank: 'blank',
  trialOf: 'trial of {column}',
  shaded: 'shaded',
  borderAllAround: 'border all around',
  side: '{side, select, top {border above} right {border on the right} bottom {border below} other {border on the left}}',
  fillColorShareOpaque: 'fill of {color}, {share} opaque',
  fillFromFrom: 'fill from {from} to {to}',
  fillPatternColorGround:
    'fill with {pattern, select, dots {dots} lines {lines} cross {crossed lines} other {diagonal lines}} in {color} on {ground}',
  theSheet: 'the sheet',
  openingTheSheet: 'Opening the sheet…',
} as const;
