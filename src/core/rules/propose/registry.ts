import { findEntry } from '../../values/entry-of';
import type { KindName, When } from '../kinds/registry';
import { averageCandidates, averageLength } from './average-candidates';
import { compareCandidates, compareLength } from './compare-candidates';
import { dateCandidates, dateLength } from './date-candidates';
import type { Evidence } from './evidence';
import { bandsCandidates, bandsLength, categoryCandidates, categoryLength } from './outcome-candidates';
import { rankCandidates, rankLength } from './rank-candidates';
import { repeatCandidates, repeatLength } from './repeat-candidates';
import type { NameLengths } from './shortness';
import { stateCandidates, stateLength } from './state-candidates';
import { textCandidates, textTestLength } from './text-candidates';

interface Proposer<W> {
  /** The conditions that are true of all cells that are to have a look, and of none that is not. */
  readonly propose: (evidence: Evidence) => Iterable<W>;
  /** Bits for the kind: how often people write it, as common practice has it; a limit or a value is the usual rule. */
  readonly bits: number;
  /** Bits for what a condition of the kind says besides. */
  readonly length: (when: W, of: NameLengths) => number;
  /** True where a condition depends on all that is read: it costs more than a loop, and says little of another field. */
  readonly isOfStatistics?: true;
}

/**
 * What each kind of condition proposes for cells somebody has pointed at. Conditions of statistics may be found by sums
 * that are nearly exact: the caller evaluates each. Kinds of which a few cells say too little, such as a colour scale, are
 * not here. Apart from the kinds, since a page has these without it.
 */
const PROPOSERS: { readonly [K in KindName]?: Proposer<Extract<When, { kind: K }>> } = {
  compare: { bits: 1, propose: compareCandidates, length: compareLength },
  text: { bits: 3, propose: textCandidates, length: textTestLength },
  state: { bits: 3, propose: stateCandidates, length: stateLength },
  date: { bits: 2, propose: dateCandidates, length: dateLength },
  average: { bits: 5, propose: averageCandidates, length: averageLength, isOfStatistics: true },
  rank: { bits: 4, propose: rankCandidates, length: rankLength, isOfStatistics: true },
  repeat: { bits: 5, propose: repeatCandidates, length: repeatLength, isOfStatistics: true },
  bands: { bits: 1, propose: bandsCandidates, length: bandsLength },
  category: { bits: 1, propose: categoryCandidates, length: categoryLength },
};

const proposerOf = (kind: KindName): Proposer<When> | undefined => findEntry<Proposer<When>>(PROPOSERS, kind);

/** The conditions of some kinds that fit the examples. */
export function* candidatesOf(kinds: readonly KindName[], evidence: Evidence): Iterable<When> {
  for (const kind of kinds) yield* proposerOf(kind)?.propose(evidence) ?? [];
}

/** Whether conditions of a kind depend on all that is read. */
export const isOfStatistics = (kind: KindName): boolean => proposerOf(kind)?.isOfStatistics ?? false;

/** How many there are of what a condition names: the more, the longer it is to say which one. */
interface Namables {
  readonly fields: number;
  /** Distinct values of the field that is read. */
  readonly values: number;
}

/**
 * The length of a proposed condition in bits: of its kind, its test, its fields and values (each one of so many), and
 * the numbers and days that it names. It is the prior of proposals, as a negative logarithm; infinite for a kind that is
 * not proposed.
 */
export function lengthOf(when: When, { fields, values }: Namables): number {
  const proposer = proposerOf(when.kind);
  if (!proposer) return Infinity;
  const names = { field: 1 + Math.log2(Math.max(1, fields)), value: 1 + Math.log2(Math.max(2, values)) };
  return proposer.bits + proposer.length(when, names);
}
