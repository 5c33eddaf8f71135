import { positionOfCell } from '../../core/sheet/cell-position';
import { countMatches } from '../../core/rules/explain/count-matches';
import { formulaReadings } from '../../core/rules/explain/formula-readings';
import { judgeTrial } from '../../core/rules/evaluate/judge-trial';
import { measureAreas } from '../../core/rules/explain/measure-area';
import { outcomeTallies } from '../../core/rules/explain/outcome-tallies';
import { rankedTail } from '../../core/rules/explain/ranked-tail';
import { keptRules } from '../../core/rules/move/rule-set-sheet';
import { touchingRules } from '../../core/rules/explain/touching-rules';
import type { Handlers } from '../../protocol/channel';
import type { EngineQuestions } from '../../protocol/engine-messages';
import type { Replica } from '../replica/replica';
import { cellsOf } from './cells-of';
import { edgeFrom } from './edge-from';
import { findIn } from './find-in';
import { dateFields, paintedByDate } from '../../core/findings/past/painted-by-date';
import { duplicateRecords } from '../../core/edit/rows';
import { longestTexts } from './longest-texts';
import { wrappedTexts } from './wrapped-texts';
import { nextMatch } from './next-match';
import { explanationsOf, fillsOf, proposalsOf } from './proposals-of';
import { recordsOf } from './records-of';
import { valuesOf } from './values-of';

/** Requests that only ask about the sheet as it is, and change nothing. */
export const questions = (replica: () => Replica) =>
  ({
    measure: ({ areas }) => measureAreas(replica().evaluation, areas),
    find: ({ wanted }) => findIn(replica(), wanted),
    'ask-texts': ({ left, right }) => longestTexts(replica().sheet, left, right),
    'ask-wrapped': ({ area, on }) => wrappedTexts(replica().sheet, area, on),
    'ask-duplicates': () => duplicateRecords(replica().sheet).length,
    'ask-next-record': () => replica().sheet.nextRecordAt(),
    'ask-edge': (asked) => edgeFrom(replica().sheet, asked),
    'ask-values': ({ column }) => valuesOf(replica().sheet, column),
    'ask-match': ({ rule, after }) => nextMatch(replica(), rule, after),
    'ask-touching': ({ areas }) => touchingRules(replica().evaluation, areas),
    'ask-rule-set': ({ rules }) => keptRules(replica().sheet, rules),
    'ask-place': ({ cell }) => positionOfCell(replica().sheet, cell) ?? null,
    'ask-cells': ({ areas, most }) => cellsOf(replica().sheet, areas, most),
    'ask-records': ({ most }) => recordsOf(replica().sheet, most),
    'ask-tallies': ({ rule }) => outcomeTallies(replica().evaluation, rule),
    'ask-count': ({ idea }) => countMatches(replica().evaluation, idea),
    'ask-by-date': ({ rule, field }) => paintedByDate(replica().evaluation, rule, field),
    'ask-date-fields': () => dateFields(replica().sheet),
    'ask-proposals': ({ examples }) => proposalsOf(replica(), examples),
    'ask-fills': () => fillsOf(replica()),
    'ask-explanation': ({ filled }) => explanationsOf(replica(), filled),
    'ask-tail': ({ rule, order }) => rankedTail(replica().evaluation, rule, { order, within: 3, beyond: 2 }),
    'ask-trials': ({ rule, values }) => values.map((value) => judgeTrial(rule, value, replica().evaluation.world)),
    'ask-readings': ({ rule, at }) => formulaReadings(replica().evaluation, rule, at),
  }) satisfies Partial<Handlers<EngineQuestions>>;
