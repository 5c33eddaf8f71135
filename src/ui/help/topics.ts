import type { ExampleName } from '../../core/rules/suggest/examples';
import type { Key } from '../../texts/texts';

/** A task that the help tells of. */
export interface Topic {
  readonly title: Key<'help'>;
  /** Its sentences, one a line. */
  readonly steps: Key<'help'>;
  /** Other words that it is looked for by. */
  readonly also: Key<'help'>;
  /** A table that is painted as the words under it say. */
  readonly example?: ExampleName;
  /** True for what readers and fillers do as well. */
  readonly isForAll?: boolean;
}

/** The tasks, in the order in which they come up. A place on the screen may name the one that it is about. */
export const TOPICS = {
  begin: {
    title: 'beginTable',
    steps: 'copyRowsAnyProgram',
    also: 'pasteTypeImportStart',
  },
  words: {
    title: 'makeRuleWords',
    steps: 'selectFieldPressAlt',
    also: 'newRuleConditionalFormat',
    example: 'limit',
  },
  examples: {
    title: 'makeRuleFromExamples',
    steps: 'selectCellsPressAlt',
    also: 'examplesLearnPropose',
  },
  change: {
    title: 'changeRule',
    steps: 'clickRuleLegendOpens',
    also: 'editRuleBenchThreshold',
  },
  past: {
    title: 'seeWhatRuleWouldFind',
    steps: 'openRulePressPast',
    also: 'pastHistoryBacktest',
  },
  quiet: {
    title: 'keepFindingsFew',
    steps: 'openRuleFoundAtOnce',
    also: 'delayHysteresisNoise',
  },
  linked: {
    title: 'linkTableOfDatabase',
    steps: 'pressLinkATable',
    also: 'databasePostgresMillions',
  },
  looks: {
    title: 'chooseLook',
    steps: 'clickLookRulesSentence',
    also: 'colourFillBoldBorder',
  },
  order: {
    title: 'orderGroupSwitchOff',
    steps: 'firstRuleLegendTakes',
    also: 'precedencePriorityLegendMove',
  },
  answers: {
    title: 'checkAnswersAgainstKey',
    steps: 'putExpectedAnswersInto',
    also: 'quizTestCorrectWrong',
    example: 'answers',
  },
  compare: {
    title: 'compareTwoFields',
    steps: 'nameBothFieldsDone',
    also: 'planActualTargetDifference',
    example: 'two-fields',
  },
  bands: {
    title: 'sortNumbersIntoBands',
    steps: 'typeCutsTurbidityBands',
    also: 'rangesLowMiddleHigh',
    example: 'bands',
  },
  dates: {
    title: 'showWhatDue',
    steps: 'typeNextDuePast',
    also: 'deadlineOverdueCalendarToday',
    example: 'due',
  },
  duplicates: {
    title: 'findDuplicates',
    steps: 'typePersonDuplicateAs',
    also: 'repeatedDoubleUniqueSame',
    example: 'repeats',
  },
  top: {
    title: 'findHighestLowest',
    steps: 'typeHoursTop2',
    also: 'rankGreatestLeastBest',
    example: 'top',
  },
  shades: {
    title: 'shadeNumbersOrDraw',
    steps: 'typeColourScaleBars',
    also: 'heatMapGradientData',
    example: 'shades',
  },
  formulas: {
    title: 'useFormula',
    steps: 'cellBeginsFormulaSUM',
    also: 'functionReferenceCalculateSum',
    isForAll: true,
  },
  why: {
    title: 'seeWhyCellLooks',
    steps: 'selectCellLineAbove',
    also: 'traceExplainReasonDebug',
    isForAll: true,
  },
  fill: {
    title: 'letOthersFill',
    steps: 'openShareThenFilling',
    also: 'studentsPupilsClassForm',
  },
  share: {
    title: 'shareSheet',
    steps: 'shareInvitesPeopleBy',
    also: 'invitePeopleViewerEditor',
  },
  findings: {
    title: 'toldWhenSomethingChanges',
    steps: 'findingsListsEachCell',
    also: 'notifyAlertWatchChanges',
  },
  history: {
    title: 'undoLookBack',
    steps: 'ctrlZTakesBack',
    also: 'undoVersionsRestoreCompare',
  },
  files: {
    title: 'exportUpdateFromFile',
    steps: 'filesExportsWorkbooksTheir',
    also: 'downloadImportCsvXlsx',
  },
  programs: {
    title: 'connectProgram',
    steps: 'createTokenUnderShare',
    also: 'apiHttpTokenIntegration',
  },
} as const satisfies Record<string, Topic>;

export type TopicName = keyof typeof TOPICS;
