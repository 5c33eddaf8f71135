import { findEntry } from '../../values/entry-of';
import type { KindName, When } from '../kinds/registry';
import { averageCandidates } from './average-candidates';
import { compareCandidates } from './compare-candidates';
import { dateCandidates } from './date-candidates';
import type { Evidence } from './evidence';
import { bandsCandidates, categoryCandidates } from './outcome-candidates';
import { rankCandidates } from './rank-candidates';
import { repeatCandidates } from './repeat-candidates';
import { stateCandidates } from './state-candidates';
import { textCandidates } from './text-candidates';

/**
 * What each kind of condition proposes for cells somebody has pointed at: conditions that are true of all that are to
 * have a look, and of none that is not. Those of statistics may be found by sums that are nearly exact: the caller
 * evaluates each. Kinds of which a few cells say too little, such as a colour scale, are not here. Apart from the kinds,
 * since a page has these without it.
 */
const PROPOSERS: { readonly [K in KindName]?: (evidence: Evidence) => Iterable<Extract<When, { kind: K }>> } = {
  compare: compareCandidates,
  text: textCandidates,
  state: stateCandidates,
  date: dateCandidates,
  average: averageCandidates,
  rank: rankCandidates,
  repeat: repeatCandidates,
  bands: bandsCandidates,
  category: categoryCandidates,
};

/** The conditions of a kind that fit the examples. */
export const candidatesOf = (kind: KindName, evidence: Evidence): Iterable<When> =>
  findEntry<(evidence: Evidence) => Iterable<When>>(PROPOSERS, kind)?.(evidence) ?? [];
