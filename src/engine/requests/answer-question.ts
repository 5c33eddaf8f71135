import { formulaReadings } from '../../core/rules/explain/formula-readings';
import { judgeTrial } from '../../core/rules/evaluate/judge-trial';
import { measureAreas } from '../../core/rules/explain/measure-area';
import { outcomeTallies } from '../../core/rules/explain/outcome-tallies';
import { rankedTail } from '../../core/rules/explain/ranked-tail';
import { keptRules } from '../../core/rules/move/rule-set-sheet';
import { touchingRules } from '../../core/rules/explain/touching-rules';
import type { Request } from '../../protocol/engine-messages';
import { cellsOf } from './cells-of';
import { edgeFrom } from './edge-from';
import { longestTexts } from './longest-texts';
import { nextMatch } from './next-match';
import { recordsOf } from './records-of';
import type { Replica } from '../replica/replica';
import { valuesOf } from './values-of';

/** Requests that only ask of the sheet as it is, and change nothing. */
export type Question = Extract<
  Request,
  {
    kind:
      | 'measure'
      | 'ask-texts'
      | 'ask-edge'
      | 'ask-values'
      | 'ask-match'
      | 'ask-touching'
      | 'ask-cells'
      | 'ask-rule-set'
      | 'ask-place'
      | 'ask-records'
      | 'ask-tallies'
      | 'ask-tail'
      | 'ask-trials'
      | 'ask-readings';
  }
>;

/** Answers questions about a sheet. */
export function answerQuestion(replica: Replica, request: Question): unknown {
  switch (request.kind) {
    case 'measure':
      return measureAreas(replica.evaluation, request.areas);
    case 'ask-texts':
      return longestTexts(replica.sheet, request.left, request.right);
    case 'ask-edge':
      return edgeFrom(replica.sheet, request);
    case 'ask-values':
      return valuesOf(replica.sheet, request.column);
    case 'ask-match':
      return nextMatch(replica, request.rule, request.after);
    case 'ask-touching':
      return touchingRules(replica.evaluation, request.areas);
    case 'ask-rule-set':
      return keptRules(replica.sheet, request.rules);
    case 'ask-place': {
      const { sheet } = replica;
      const [slot, column] = [sheet.findSlot(request.cell.row), sheet.findColumn(request.cell.field)];
      return slot === undefined || column === undefined ? null : { column, position: sheet.positionOf(slot) };
    }
    case 'ask-cells':
      return cellsOf(replica.sheet, request.areas, request.most);
    case 'ask-records':
      return recordsOf(replica.sheet, request.most);
    case 'ask-tallies':
      return outcomeTallies(replica.evaluation, request.rule);
    case 'ask-tail':
      return rankedTail(replica.evaluation, request.rule, { order: request.order, within: 3, beyond: 2 });
    case 'ask-trials':
      return request.values.map((value) => judgeTrial(request.rule, value, replica.evaluation.world));
    case 'ask-readings':
      return formulaReadings(replica.evaluation, request.rule, request.at);
  }
}
