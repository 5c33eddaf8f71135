import type { Evaluation } from '../evaluate/evaluation';
import type { KindName } from '../kinds/registry';
import type { RuleIdea } from '../shape/rule-idea';
import type { Sheet } from '../../sheet/sheet';
import { isOfStatistics } from '../propose/registry';
import { CandidateSearch, type Candidate } from './candidate-search';
import { CandidateTrial } from './candidate-trial';
import type { ExamplesGiven, Proposal } from './proposal';
import { withoutEach } from './without-each';

/** Conditions of one kind over one field that are evaluated at most; comparisons of two fields; those of statistics. */
const MAX_ALIKE = 64;
const MAX_BESIDE = 30;
const MAX_STATISTICS = 12;
/** Conditions that are evaluated at most, and proposals that are kept, to be told apart by further examples. */
const MAX_EVALUATED = 192;
const MAX_KEPT = 40;
/** Of these, what somebody may see. */
const MAX_SHOWN = 8;

/**
 * The rules that fit examples, best first, those that paint the same cells together. Each kind of condition proposes
 * its own (`propose/registry.ts`); combinations of two are made of them. All are evaluated over the sheet, and ranked
 * by the length in bits of the rule and of the examples given the rule: an example among few painted cells takes fewer
 * bits, so that of two rules that fit, the one that paints less is better (minimum description length, Rissanen 1978;
 * the size principle, J. Tenenbaum, Bayesian modeling of human concept learning, NIPS 11, 1999).
 *
 * With a slip one example may be wrong: what fits the others is proposed as well. Cost: up to 192 rules over all records.
 */
export function proposeRules(evaluation: Evaluation, given: ExamplesGiven, slips: 0 | 1 = 0): Proposal[] {
  const found = new Map<string, Map<KindName, Proposal>>();
  const trial = new CandidateTrial(evaluation, given);
  const sought = slips === 0 ? [given] : withoutEach(given);
  const candidates = sought.flatMap((examples) => new CandidateSearch(evaluation, examples).all());
  for (const candidate of shortest(candidates)) {
    const proposal = trial.proposal(candidate);
    if (!proposal || proposal.misses.length > slips) continue;
    const { kind } = proposal.idea.when;
    const byKind = found.get(proposal.painted.signature) ?? new Map<KindName, Proposal>();
    const known = byKind.get(kind);
    if (!known || proposal.bits < known.bits) byKind.set(kind, proposal);
    found.set(proposal.painted.signature, byKind);
  }
  return [...found.values()]
    .flatMap((byKind) => {
      const [best, ...same] = [...byKind.values()].sort(byLength);
      return best ? [{ ...best, same: same.filter((other) => isAnotherReason(evaluation.sheet, best, other)) }] : [];
    })
    .sort(byLength)
    .slice(0, MAX_KEPT)
    .filter((proposal, at) => {
      // A formula meets texts in a few other spellings than a condition: those that will be shown are held to it.
      if (!proposal.combination || at >= MAX_SHOWN) return true;
      return trial.painted(proposal.idea)?.signature === proposal.painted.signature;
    });
}

/** Two conditions over the field that a single one reads are no other reason: at least 50, and not 50. */
function isAnotherReason(sheet: Sheet, { idea: { reads }, combination }: Proposal, other: Proposal): boolean {
  if (!other.combination || combination || !('fields' in reads)) return true;
  const [column, ...more] = reads.fields.map((id) => sheet.findColumn(id));
  return more.length > 0 || other.combination.parts.some((part) => part.column !== column);
}

const byLength = (a: { readonly bits: number }, b: { readonly bits: number }): number => a.bits - b.bits;

/** The shortest candidates: so many of each sort, and so many in all. */
function shortest(all: readonly Candidate[]): Candidate[] {
  const counts = new Map<string, number>();
  const seen = new Set<string>();
  return [...all]
    .sort(byLength)
    .filter(({ idea }) => {
      const key = JSON.stringify(idea);
      if (seen.has(key)) return false;
      seen.add(key);
      const { sort, most } = sortOf(idea);
      const count = counts.get(sort) ?? 0;
      counts.set(sort, count + 1);
      return count < most;
    })
    .slice(0, MAX_EVALUATED);
}

/** Candidates that count together: those of a kind over the same field, and all that cost more than a loop. */
function sortOf({ reads, when }: RuleIdea): { readonly sort: string; readonly most: number } {
  if (isOfStatistics(when.kind)) return { sort: 'statistics', most: MAX_STATISTICS };
  const isBeside = when.kind === 'compare' && typeof when.to === 'object' && 'field' in when.to;
  if (isBeside) return { sort: 'beside', most: MAX_BESIDE };
  return { sort: `${when.kind} ${'fields' in reads ? reads.fields.join(' ') : ''}`, most: MAX_ALIKE };
}
