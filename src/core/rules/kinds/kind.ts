import type { SchemaOf } from '../../lazy-schema';
import type { Scalar } from '../../formula/values/formula-value';
import type { Look } from '../../looks/look';
import type { CellBefore } from '../../sheet/effect';
import type { OutcomeColumn } from '../compile/outcome-column';
import type { CompileContext } from '../compile/compile-context';
import type { ColorRamp } from '../../looks/color-ramp';
import type { ValueProfile } from '../../stats/profile-values';
import type { Position } from '../compile/positions';
import type { Inputs, Problem, RuleReferences, SentenceWords } from '../terms';

/** A comparison at one cell, as shown. */
export interface Comparison {
  readonly left: string;
  readonly relation: string;
  readonly right: string;
  /** Why the comparison could not be made, or a fact that explains it. */
  readonly note?: string;
}

/** Which outcomes an edit may have changed besides that of the cell itself: none, all, or those of some cells. */
export type Invalidation =
  | 'this-cell'
  | 'every-cell'
  | 'recompile'
  | readonly { readonly column: number; readonly slot: number }[];

/**
 * A condition compiled for one sheet. An outcome is a small whole number, or -1 for none; kinds with one outcome use 0.
 */
export interface Kernel {
  readonly inputs: Inputs;
  /**
   * Writes the outcome of every slot below `slotCount` of a column; cells out of reach may get one too, the caller
   * masks them.
   */
  run(column: number, slotCount: number, into: OutcomeColumn): void;
  outcomeAt(column: number, slot: number): number;
  /**
   * Corrects statistics for an edit of a cell that is read, and says which outcomes may differ now; `recompile` asks to
   * be recompiled.
   */
  edited(column: number, slot: number, before: CellBefore): Invalidation;
  /**
   * The look of an outcome where the condition carries its own; undefined leaves it to the rule's look, null is no
   * look.
   */
  look(outcome: number): Look | null | undefined;
  /** The look of one cell that has an outcome, for conditions whose looks differ from cell to cell. */
  lookOf?(column: number, slot: number): Look | null;
  /** The outcome of a cell as reports give it: a number, unless the condition has another word for it. */
  outcomeTold?(outcome: number, column: number, slot: number): unknown;
  /** The result of the formula for a cell, for conditions that are one. */
  formulaValue?(column: number, slot: number): Scalar;
  explain(column: number, slot: number): Comparison;
}

/** The input of a condition's defaults. */
export interface FieldProfile {
  readonly numbers: number;
  readonly least: number;
  readonly lowerQuartile: number;
  readonly median: number;
  readonly upperQuartile: number;
  readonly greatest: number;
  /** The most frequent text among the cells, or null where there is none. */
  readonly commonText: string | null;
  /** The first cell read, as a formula names it. */
  readonly firstCell?: string;
}

export interface Threshold<W> {
  readonly value: number;
  with(value: number): W;
}

/** A place on the scale of the numbers where looks change, and how to replace it by a number. */
export interface Stop<W> {
  readonly at: Position;
  with(value: number): W;
}

/** A number that explains a picture of the values, and what it is. */
export interface Mark {
  readonly value: number;
  readonly says: string;
}

/** A check that lives with the kind: these inputs, read as the records of one field, give these outcomes. */
export interface Example<W> {
  readonly says: string;
  readonly when: W;
  readonly inputs: readonly string[];
  readonly outcomes: readonly number[];
}

/**
 * One kind of condition. Everything that differs from kind to kind is here; nothing else asks which kind a rule is of.
 */
export interface ConditionKind<W extends { readonly kind: string }> {
  readonly schema: SchemaOf<W>;
  /** How many outcomes: one match, or several numbered from 0. */
  readonly outcomes: 'match' | 'several';
  /** True where the text colour of a painted cell is chosen to be readable on its fill, unless a rule sets one. */
  readonly choosesText?: boolean;
  /** The same condition with every field it names replaced: labels become ids when a file is read, and back. */
  mapReferences(when: W, to: RuleReferences): W;
  /** The look of each outcome, for conditions with looks of their own; undefined where the rule's look is used. */
  outcomeLooks(when: W): readonly (Look | null)[] | undefined;
  compile(when: W, context: CompileContext): Kernel | Problem;
  sentence(when: W, words: SentenceWords): string;
  /** Words for an outcome, after the rule's name; empty for a plain match. */
  outcomeName(when: W, outcome: number, words: SentenceWords): string;
  defaults(profile: FieldProfile): W;
  /**
   * The numbers given outright that divide outcomes, in order, each with how to put another in its place: what can be
   * dragged and looked around.
   */
  thresholds(when: W): readonly Threshold<W>[];
  /** The places on the scale of the numbers, for conditions that have them; what is dragged becomes a number. */
  stops?(when: W): readonly Stop<W>[];
  /** The colours from stop to stop, for conditions that shade numbers between them. */
  ramp?(when: W): ColorRamp;
  /** Numbers that explain the outcomes in a picture of the values. */
  marks?(when: W, values: Pick<ValueProfile, 'mean' | 'deviation'>): readonly Mark[];
  /** Whether the outcome of a cell depends on its record alone, and not on the values of others; absent: it does not. */
  isByRecord?(when: W): boolean;
  readonly examples: readonly Example<W>[];
}
