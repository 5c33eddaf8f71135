// Texts of the interface in English: ICU messages by key.
export const help = {
  help: 'Help',
  searchHelp: 'Search help',
  keyboardShortcuts: 'Keyboard shortcuts',
  noTaskHasThese: 'No task has these words. Try one word, such as “date”.',
  tryChangeWords: 'Try it: change the words',
  beginTable: 'Begin with a table',
  copyRowsAnyProgram:
    'Copy rows in any program, click a cell here and press Ctrl+V.\nOr type: the first row names the fields.\nA file is imported from your sheets, with a preview first.',
  pasteTypeImportStart: 'paste type import start new',
  makeRuleWords: 'Make a rule in words',
  selectFieldPressAlt:
    'Select a field and press Alt+R, or “New rule” in the legend.\nType what matters, such as “oxygen below 5 as alarm”. The line shows what it will do and to how many cells.\nPress Enter. The rule is in the legend and works on records to come.',
  newRuleConditionalFormat: 'new rule conditional format highlight threshold limit flag record',
  makeRuleFromExamples: 'Make a rule from examples',
  selectCellsPressAlt:
    'Select some cells that should be highlighted and press Alt+L, or choose “Highlight cells like these…” in their menu.\nThe sheet shows the first rule that fits. Answer the question, or select a cell that is painted wrongly: Alt+L says that it should be, Alt+Shift+L that it should not.\nPress “Save rule”. Fills that were made by hand are explained from “New rule” over their field.',
  examplesLearnPropose: 'example like these propose learn fill by hand explain guess',
  changeRule: 'Change a rule',
  clickRuleLegendOpens:
    'Click the rule in the legend. It opens on the bench under the sheet.\nThe underlined words of its sentence can be changed, and thresholds dragged in the picture. The sheet shows it at once.\nPress Enter or “Save changes”. “Discard changes” puts everything back.',
  editRuleBenchThreshold: 'edit rule bench threshold drag sentence',
  seeWhatRuleWouldFind: 'See what a rule would have found',
  openRulePressPast:
    'Open a rule, or begin one, and press “Past” beside its sentence.\nThe line says how many cells would have had the look; bars upwards are cells that entered, bars downwards cells that left. Change the threshold, and it is worked out again; the dashed line is the rule as saved.\n“Over” chooses a shorter time, or a field of dates. “Download the table” gives each time that a cell was found.',
  pastHistoryBacktest: 'past history replay false alarm how often would have found test',
  keepFindingsFew: 'Keep the findings of a rule few',
  openRuleFoundAtOnce:
    'Open the rule, and press “at once” at the end of its sentence.\n“After” waits until a cell has had the look for so long. “Until back at” takes a second limit, which a cell must pass before it has left. “At most once in” gives the same cell no finding again for so long.\nThe look never waits. “Past” shows what the rule would have found so.',
  delayHysteresisNoise: 'hold delay hysteresis deadband re-arm quiet noise too many alerts flapping',
  linkTableOfDatabase: 'Link a table of a database',
  pressLinkATable:
    'On the start page, press “Link a table”, and give the address of the database and the name of the table.\nIts records stay there: 1,000 at a time are shown, and “Next” leads to others. The legend counts each rule over the whole table, and “show the next one” on the bench leads to the next record that a rule paints.\nThe server must allow the database: who runs it can do so by a setting.',
  databasePostgresMillions: 'database PostgreSQL SQL table view millions of rows connect warehouse',
  chooseLook: 'Choose a look',
  clickLookRulesSentence:
    'Click the look in the rule’s sentence.\nChoose a saved look, or set fill, text, border and icon of its own.\nA look that is saved under a name can be used in other rules, and changed for all of them at once.',
  colourFillBoldBorder: 'colour fill bold border icon style format',
  orderGroupSwitchOff: 'Order, group and switch off rules',
  firstRuleLegendTakes:
    'The first rule in the legend takes precedence where two set the same thing.\nDrag a rule by its handle, or use its menu to move it, switch it off, copy it or delete it.\nA group gives rules a common heading.',
  precedencePriorityLegendMove: 'precedence priority legend move delete disable',
  checkAnswersAgainstKey: 'Check answers against a key',
  putExpectedAnswersInto:
    'Put the expected answers into a field of their own.\nSelect the answers and type “answer checked against key”.\nCase, accents and spaces at the ends do not matter. Fillers never get the key.',
  quizTestCorrectWrong: 'quiz test correct wrong right marks teacher',
  compareTwoFields: 'Compare two fields',
  nameBothFieldsDone:
    'Name both fields: “done less than planned”.\nA tolerance is a part of the sentence: “more than 10 % under planned”.\n“Records where …” paints the whole record.',
  planActualTargetDifference: 'plan actual target difference tolerance',
  sortNumbersIntoBands: 'Sort numbers into bands',
  typeCutsTurbidityBands:
    'Type the cuts: “turbidity in bands at 10 and 30”.\nLooks may follow: “in green, yellow and red”.\nOn the bench each band has its look, and each cut says to which side it belongs.',
  rangesLowMiddleHigh: 'ranges low middle high traffic light levels',
  showWhatDue: 'Show what is due',
  typeNextDuePast:
    'Type “next due is past as alarm”, or “in the next 7 days as watch”.\nDays are counted from today, so the looks change by themselves.',
  deadlineOverdueCalendarToday: 'deadline overdue calendar today week month',
  findDuplicates: 'Find duplicates',
  typePersonDuplicateAs:
    'Type “person is a duplicate as plum”.\nOn the bench a combination of fields can be compared instead of one.\n“Remove duplicate records” in the menu of rows deletes all but the first.',
  repeatedDoubleUniqueSame: 'repeated double unique same',
  findHighestLowest: 'Find the highest and lowest',
  typeHoursTop2:
    'Type “hours in the top 2 as clear”, or “the bottom 10 %”.\nOn the bench each group can have its own ranking.',
  rankGreatestLeastBest: 'rank greatest least best worst percent',
  shadeNumbersOrDraw: 'Shade numbers, or draw bars and icons',
  typeColourScaleBars:
    'Type “in a colour scale”, “with bars”, or “with stars at 70 and 90”.\nThe ends of a scale are the least and the greatest value, or numbers of your own.',
  heatMapGradientData: 'heat map gradient data bars icon sets stars',
  useFormula: 'Use a formula',
  cellBeginsFormulaSUM:
    'A cell that begins with = is a formula: =SUM(B2:B9). Cells that you click go into it.\nA rule by formula paints where it is TRUE. It is written for the first cell; references move along unless they have a $.\nA threshold takes a cell or formula as well: type =F4 in its place.',
  functionReferenceCalculateSum: 'function reference calculate sum average if',
  seeWhyCellLooks: 'See why a cell looks as it does',
  selectCellLineAbove:
    'Select the cell. The line above the sheet names the rules that paint it.\nThe sign at its end opens the trace: each rule that reaches the cell, what it compared, and which came first.',
  traceExplainReasonDebug: 'trace explain reason debug colour',
  letOthersFill: 'Let others fill in',
  openShareThenFilling:
    'Open “Share”, then “Filling in”, and choose which fields can be filled in and which are hidden.\nCreate a link under “Links”: one for all, or one for each person.\nWho opens it needs no account, and gets neither rules nor answer keys.',
  studentsPupilsClassForm: 'students pupils class form answers link',
  shareSheet: 'Share a sheet',
  shareInvitesPeopleBy:
    '“Share” invites people by e-mail as editors, or creates links to read or to fill in.\nA link can expire, and is deleted in the same place.\nWho is here now is shown beside the name of the sheet.',
  invitePeopleViewerEditor: 'invite people viewer editor link access',
  toldWhenSomethingChanges: 'Be told when something changes',
  findingsListsEachCell:
    '“Findings” lists each cell that entered or left a rule, with what it held before.\nMark them as seen, add a note, or mute a rule.\nA digest collects them hourly or daily in your outbox.',
  notifyAlertWatchChanges: 'notify alert watch changes feed mail',
  undoLookBack: 'Undo, and look back',
  ctrlZTakesBack:
    'Ctrl+Z takes back your own last change.\n“History” lists every change. A version can be viewed, compared, named and restored.',
  undoVersionsRestoreCompare: 'undo versions restore compare log',
  exportUpdateFromFile: 'Export, and update from a file',
  filesExportsWorkbooksTheir:
    '“Files” exports workbooks with their rules, separated values, pages and archives. A report says what a format cannot hold.\n“Update from file” takes newer values by a key, and shows the differences first.',
  downloadImportCsvXlsx: 'download import csv xlsx ods html print save',
  connectProgram: 'Connect a program',
  createTokenUnderShare:
    'Create a token under “Share”, “Programs”.\nPrograms enter and read records and receive findings. Examples that run are on the page “For programs”.',
  apiHttpTokenIntegration: 'api http token integration device logger',
  takeTourSheet: 'Take the tour of this sheet',
  tour: 'Tour',
  all: '{at, number} of {all, number}',
  endTour: 'End tour',
  back: 'Back',
  done: 'Done',
  next: 'Next',
  labelBelowValueAs: '{label} below {value} as alarm',
  labelBlankAsWatch: '{label} is blank as watch',
  sayWhatMattersStands: 'Say what matters, and it stands out by itself. Here for example: “{phrase}”.',
  rulesNumberCellsEach:
    '{rules, plural, =0 {Your rules will be listed here, in order of precedence,} one {Your rule is listed here} other {Your # rules are listed here, in order of precedence,}} with the number of cells that each paints. Click a rule to change it on the bench.',
  selectCellLineShows:
    'Select a cell, and this line shows what it holds and which rules paint it. The sign at its end says why.',
  shareSheetByLink: 'Share the sheet by link: to read, to fill in, or to edit. F1 brings help wherever you are.',
  yourTableNamesSelect:
    'This is your table{names, select, none {} other { of {names}}}. The first row names the fields. Type, paste, or import a file.',
} as const;
