import type { ExampleCell, WantedCells } from '../propose/evidence';
import type { RuleIdea } from '../shape/rule-idea';
import { ruleSentence, type NamedField } from '../shape/sentence-words';
import type { FieldId } from '../../sheet/ids';
import type { Combination } from './combine-conditions';
import type { PaintedCells } from './painted-cells';

/** Cells somebody has pointed at, and what a rule for them is to paint. */
export interface ExamplesGiven {
  /** Cells that are to have a look; several looks where each has some. */
  readonly wanted: readonly WantedCells[];
  readonly unwanted: readonly ExampleCell[];
  /** The cells themselves, or their whole records. */
  readonly paints: 'cell' | 'record';
  /** The field that the rule is to read; any where it is not given. */
  readonly reads?: FieldId | undefined;
}

/** A rule that fits the examples. */
export interface Proposal {
  readonly idea: RuleIdea;
  /** The two conditions of a combination, which the rule itself says as a formula. */
  readonly combination?: Combination | undefined;
  /** How many cells, or records, it would paint by what it reads. */
  readonly count: number;
  /** Description length of the rule and of the examples given the rule, in bits; the least is best. */
  readonly bits: number;
  /** Examples that it does not fit. */
  readonly misses: readonly ExampleCell[];
  readonly painted: PaintedCells;
  /** Rules of other kinds that paint the same cells now, and may paint others later: the best of each kind. */
  readonly same: readonly Proposal[];
}

/** The sentence of a proposal: of a combination, both of its conditions. */
export function proposalSentence(fields: readonly NamedField[], { idea, combination }: Proposal): string {
  if (!combination) return ruleSentence(fields, idea);
  const sentences = combination.parts.map(({ column, when }) => {
    const field = fields[column];
    return field ? ruleSentence(fields, { reads: { fields: [field.id] }, when }) : '';
  });
  return sentences.join(` ${combination.how} `);
}
