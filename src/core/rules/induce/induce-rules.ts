import type { Evaluation } from '../evaluate/evaluation';
import type { ExampleCell } from '../propose/evidence';
import type { RuleIdea } from '../shape/rule-idea';
import { namedFields } from '../shape/named-fields';
import { nearCases, type NearCase } from './near-cases';
import { proposeRules } from './propose-rules';
import { proposalSentence, type ExamplesGiven, type Proposal } from './proposal';
import { tellingCell } from './telling-cell';

/** A rule that fits examples, as it is shown to somebody. */
export interface ToldProposal {
  readonly sentence: string;
  readonly idea: RuleIdea;
  /** How many cells it would paint by what it reads; with whole records, how many records. */
  readonly count: number;
  readonly near: readonly NearCase[];
  /** Examples that it does not fit. */
  readonly misses: readonly ExampleCell[];
  /** Whether it paints the same cells as the one before it, for another reason. */
  readonly isSame: boolean;
}

/** A cell whose answer tells proposals apart: which of those shown would paint it. */
export interface TellingCell extends ExampleCell {
  readonly paintedBy: readonly number[];
}

export interface InducedRules {
  /** Best first. */
  readonly proposals: readonly ToldProposal[];
  readonly ask?: TellingCell;
}

/** Proposals that are shown, those that paint the same cells as others among them. */
const MAX_TOLD = 8;
/** So many examples, of which one may be wrong where nothing fits all. */
const ENOUGH_FOR_A_MISS = 5;

/**
 * The rules that fit examples, best first, with their nearest cases, and the cell to ask about next. Where no rule fits
 * all of several examples, those that fit all but one. None without a cell that is wanted.
 */
export function induceRules(evaluation: Evaluation, given: ExamplesGiven): InducedRules {
  const cells = [...given.wanted.flatMap((each) => each.cells), ...given.unwanted];
  if (given.wanted.length === 0 || given.wanted.some((each) => each.cells.length === 0)) return { proposals: [] };
  let found = proposeRules(evaluation, given);
  if (found.length === 0 && cells.length >= ENOUGH_FOR_A_MISS) found = proposeRules(evaluation, given, 1);
  const { sheet } = evaluation;
  const columns = [...new Set(cells.map(({ column }) => column))];
  const ask = tellingCell(found, { sheet, columns, looks: given.wanted.length });
  const shown = found.flatMap((each) => [each, ...each.same.slice(0, 1)]).slice(0, MAX_TOLD);
  return {
    proposals: shown.map((each, at) => ({
      ...toldProposal(evaluation, each),
      isSame: each.painted.signature === shown[at - 1]?.painted.signature,
    })),
    ...(ask ? { ask: askedOf(shown, ask) } : {}),
  };
}

/** A proposal as it is shown to somebody. */
export function toldProposal({ sheet }: Evaluation, proposal: Proposal): ToldProposal {
  const { idea, count, misses } = proposal;
  return {
    sentence: proposalSentence(namedFields(sheet), proposal),
    idea,
    count,
    near: nearCases(sheet, proposal),
    misses,
    isSame: false,
  };
}

const askedOf = (shown: readonly Proposal[], cell: ExampleCell): TellingCell => ({
  ...cell,
  paintedBy: shown.flatMap(({ painted }, at) => (painted.lookAt(cell) >= 0 ? [at] : [])),
});
