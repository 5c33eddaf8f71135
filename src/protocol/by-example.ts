import type { Look } from '../core/looks/look';
import type { HandFill } from '../core/rules/induce/hand-fills';
import type { RuleIdea } from '../core/rules/shape/rule-idea';
import type { CellIds } from '../core/sheet/ids';

/** Cells that somebody has pointed at, each with the look it is to have, or with none. */
export interface PointedExamples {
  readonly wanted: readonly { readonly look: Look; readonly cells: readonly CellIds[] }[];
  readonly unwanted: readonly CellIds[];
  /** The cells themselves, or their whole records. */
  readonly paints: 'cell' | 'record';
}

/** Cells that were filled with one colour by hand, in the same records of one or several fields. */
export type FilledCells = Omit<HandFill, 'slots'>;

/** A cell with its address and what it shows. */
export interface CellTold {
  readonly cell: CellIds;
  readonly address: string;
  readonly shown: string;
}

export interface ProposalTold {
  readonly sentence: string;
  readonly idea: RuleIdea;
  /** True where it paints the same cells as the one before it, for another reason. */
  readonly isSame: boolean;
  /** How many cells it would paint by what it reads; of records, how many. */
  readonly count: number;
  readonly near: readonly (CellTold & { readonly isPainted: boolean })[];
  /** Examples, or filled cells, that it does not fit; a few of them. */
  readonly misses: readonly CellTold[];
}

/** What fits some examples, best first; and the cell to ask about. */
export interface ProposalsTold {
  readonly proposals: readonly ProposalTold[];
  readonly ask: CellTold | null;
  /** The examples that are still there, by look, then those that are to have none. */
  readonly wanted: readonly (readonly CellTold[])[];
  readonly unwanted: readonly CellTold[];
}

/** The requests about rules by example. */
export type ByExampleQuestions = {
  /** The rules that fit cells somebody has pointed at. */
  readonly 'ask-proposals': {
    readonly asked: { readonly examples: PointedExamples };
    readonly answer: ProposalsTold;
  };
  /** The fills of records that were made by hand, and the rules that explain one of them. */
  readonly 'ask-fills': { readonly asked: object; readonly answer: readonly FilledCells[] };
  readonly 'ask-explanation': {
    readonly asked: { readonly filled: FilledCells };
    readonly answer: readonly ProposalTold[];
  };
};
