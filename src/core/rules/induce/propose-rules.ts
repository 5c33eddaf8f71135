import { isInUse } from '../compile/reach';
import type { Evaluation } from '../evaluate/evaluation';
import { RunningRule } from '../evaluate/running-rule';
import { KIND_NAMES, type KindName, type When } from '../kinds/registry';
import { Evidence, type ExampleCell, type WantedCells } from '../propose/evidence';
import { ruleSentence, type NamedField } from '../shape/sentence-words';
import type { RuleIdea } from '../shape/rule-idea';
import type { FieldId } from '../../sheet/ids';
import type { Sheet } from '../../sheet/sheet';
import {
  combineConditions,
  combinedWhen,
  fieldCandidates,
  type Combination,
  type ConditionPart,
} from './combine-conditions';
import { descriptionLength } from './description-length';
import { PaintedCells } from './painted-cells';

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
}

/** Conditions of one kind over one field that are evaluated at most; comparisons of two fields; those of statistics. */
const MAX_ALIKE = 64;
const MAX_BESIDE = 30;
const MAX_STATISTICS = 12;
const STATISTICS: readonly KindName[] = ['average', 'rank', 'repeat'];
/** Conditions that are evaluated at most, and proposals that are kept, to be told apart by further examples. */
const MAX_EVALUATED = 192;
const MAX_KEPT = 40;
/** Of these, what somebody may see. */
const MAX_SHOWN = 8;

/** Kinds that look at each record by itself: the others are proposed only over the fields that were pointed at. */
const BY_RECORD: readonly KindName[] = ['compare', 'text', 'state', 'date', 'bands', 'category'];
/** Bits for reading another field than the one that was pointed at. */
const OTHER_FIELD_BITS = 12;
/** Bits for a combination, besides its parts. */
const COMBINATION_BITS = 6;
/** Bits for an example that does not fit, besides which one it is. */
const MISS_BITS = 6;
/** Examples that count as drawn from what is painted, and from the rest; more are answers to what was asked. */
const MAX_DRAWN = { wanted: 2, unwanted: 1 } as const;

interface Candidate {
  readonly idea: RuleIdea;
  readonly bits: number;
  readonly combination?: Combination;
}

/**
 * The rules that fit examples, best first, those that paint the same cells only once. Each kind of condition proposes
 * its own (`propose/registry.ts`); combinations of two are made of them. All are evaluated over the sheet, and ranked
 * by the length in bits of the rule and of the examples given the rule: an example among few painted cells takes fewer
 * bits, so that of two rules that fit, the one that paints less is better (minimum description length, Rissanen 1978;
 * the size principle, J. Tenenbaum, Bayesian modeling of human concept learning, NIPS 11, 1999).
 *
 * Up to `misses` examples may be wrong. Cost: up to 128 rules over all records.
 */
export function proposeRules(evaluation: Evaluation, given: ExamplesGiven, misses = 0): Proposal[] {
  const found = new Map<string, Proposal>();
  const trial = new CandidateTrial(evaluation, given);
  for (const candidate of shortest(new CandidateSearch(evaluation, given).all())) {
    const proposal = trial.proposal(candidate);
    if (!proposal || proposal.misses.length > misses) continue;
    const known = found.get(proposal.painted.signature);
    if (!known || proposal.bits < known.bits) found.set(proposal.painted.signature, proposal);
  }
  return [...found.values()]
    .sort((a, b) => a.bits - b.bits)
    .slice(0, MAX_KEPT)
    .filter((proposal, at) => {
      // A formula meets texts in a few other spellings than a condition: those that will be shown are held to it.
      if (!proposal.combination || at >= MAX_SHOWN) return true;
      return trial.painted(proposal.idea)?.signature === proposal.painted.signature;
    });
}

/** The shortest candidates: so many of each sort, and so many in all. */
function shortest(all: readonly Candidate[]): Candidate[] {
  const counts = new Map<string, number>();
  return [...all]
    .sort((a, b) => a.bits - b.bits)
    .filter(({ idea }) => {
      const { sort, most } = sortOf(idea);
      const count = counts.get(sort) ?? 0;
      counts.set(sort, count + 1);
      return count < most;
    })
    .slice(0, MAX_EVALUATED);
}

/** Candidates that count together: those of a kind over the same field, and all that cost more than a loop. */
function sortOf({ reads, when }: RuleIdea): { readonly sort: string; readonly most: number } {
  if (STATISTICS.includes(when.kind)) return { sort: 'statistics', most: MAX_STATISTICS };
  const isBeside = when.kind === 'compare' && typeof when.to === 'object' && 'field' in when.to;
  if (isBeside) return { sort: 'beside', most: MAX_BESIDE };
  return { sort: `${when.kind} ${'fields' in reads ? reads.fields.join(' ') : ''}`, most: MAX_ALIKE };
}

/** What can be said of the examples: by the fields that were pointed at, by others, by two conditions together. */
class CandidateSearch {
  private readonly sheet: Sheet;
  /** The columns of all examples, from the left. */
  private readonly pointed: readonly number[];
  private readonly isSeveral: boolean;

  constructor(
    private readonly evaluation: Evaluation,
    private readonly given: ExamplesGiven,
  ) {
    this.sheet = evaluation.sheet;
    this.isSeveral = given.wanted.length > 1;
    const cells = [...given.wanted.flatMap((each) => each.cells), ...given.unwanted];
    this.pointed = [...new Set(cells.map(({ column }) => column))].sort((a, b) => a - b);
  }

  all(): Candidate[] {
    const { given, pointed } = this;
    const isRecord = given.paints === 'record';
    const readable = this.readable();
    const others = readable
      .filter((column) => isRecord || !pointed.includes(column))
      .map((column) => this.over([column], false));
    const own = isRecord || given.reads !== undefined ? undefined : this.over(pointed, true);
    const otherBits = Math.log2(others.length || 1) + (isRecord || given.reads !== undefined ? 0 : OTHER_FIELD_BITS);
    const kinds = isRecord ? KIND_NAMES : BY_RECORD;
    return [
      ...(own ? this.ofField(own, KIND_NAMES, 0) : []),
      ...others.flatMap((evidence) => this.ofField(evidence, kinds, otherBits)),
      ...(this.isSeveral ? [] : this.combined(own, others)),
    ];
  }

  /** The columns that a rule may read: the one asked for, or all that are in use. */
  private readable(): number[] {
    const { sheet, given } = this;
    const asked = given.reads === undefined ? undefined : sheet.findColumn(given.reads);
    if (asked !== undefined) return [asked];
    return sheet.fields.flatMap((_, column) => (isInUse(sheet, column) ? [column] : []));
  }

  /** The examples as a rule sees them that reads some columns: of one other column, its cells in the same rows. */
  private over(columns: readonly number[], isPointed: boolean): Evidence {
    const { sheet, given, evaluation } = this;
    const [column = 0, ...more] = columns;
    const moved = (cells: readonly ExampleCell[]): readonly ExampleCell[] =>
      more.length ? cells : cells.map(({ slot }) => ({ column, slot }));
    const slots = sheet.slotsWithRoles(['record']);
    return new Evidence({
      sheet,
      read: columns.map((each) => ({ column: each, slots })),
      wanted: given.wanted.map(({ look, cells }) => ({ look, cells: moved(cells) })),
      unwanted: moved(given.unwanted),
      now: evaluation.world.formulas.now,
      isPointed,
    });
  }

  /** Conditions with looks of their own are for several looks, the others for one. */
  private ofField(evidence: Evidence, kinds: readonly KindName[], extraBits: number): Candidate[] {
    const usable = kinds.filter((kind) => (kind === 'bands' || kind === 'category') === this.isSeveral);
    const namables = { fields: this.sheet.fields.length, values: evidence.valueCount };
    return [...fieldCandidates(evidence, usable)].map((when) => ({
      idea: this.idea(evidence, when),
      bits: extraBits + descriptionLength(when, namables),
    }));
  }

  private idea({ read }: Pick<Evidence, 'read'>, when: When): RuleIdea {
    const { sheet, given, pointed } = this;
    const [first] = given.wanted;
    const fieldsOf = (columns: readonly number[]): FieldId[] => columns.map((column) => sheet.field(column).id);
    const isOwn = read.length === pointed.length && read.every(({ column }, at) => pointed[at] === column);
    return {
      reads: { fields: fieldsOf(read.map(({ column }) => column)) },
      when,
      paints: given.paints === 'record' ? 'record' : isOwn ? 'cell' : { fields: fieldsOf(pointed) },
      settles: false,
      ...(this.isSeveral || !first ? {} : { look: first.look }),
    };
  }

  /** Two conditions over any fields: as a formula over the field pointed at, or over the first of the two. */
  private combined(own: Evidence | undefined, others: readonly Evidence[]): Candidate[] {
    const position = this.sheet.recordSpan().first;
    const fields = own?.read.length === 1 ? [own, ...others] : others;
    return combineConditions(fields, this.evaluation.world).flatMap((combination) => {
      const read = own ?? fields.find(({ column }) => column === combination.parts[0].column);
      if (!read) return [];
      const when = combinedWhen(combination, { column: read.column, position });
      const isFar = own && !combination.parts.some(({ column }) => column === own.column);
      return {
        idea: this.idea(read, when),
        bits: COMBINATION_BITS + (isFar ? OTHER_FIELD_BITS : 0) + combination.bits,
        combination,
      };
    });
  }
}

/** Finds what candidates paint. The parts of combinations are evaluated once, whatever the number of these. */
class CandidateTrial {
  private readonly parts = new Map<ConditionPart, PaintedCells>();

  constructor(
    private readonly evaluation: Evaluation,
    private readonly given: ExamplesGiven,
  ) {}

  /** What a candidate is worth; undefined where it cannot work, or paints nothing. */
  proposal({ idea, bits, combination }: Candidate): Proposal | undefined {
    const { wanted, unwanted } = this.given;
    const painted = combination ? this.combined(combination) : this.painted(idea);
    if (!painted?.count) return undefined;
    const misses = [
      ...wanted.flatMap(({ cells }, look) => cells.filter((cell) => painted.lookAt(cell) !== look)),
      ...unwanted.filter((cell) => painted.lookAt(cell) >= 0),
    ];
    const total = wanted.reduce((sum, { cells }) => sum + cells.length, 0);
    const drawn =
      Math.min(total, MAX_DRAWN.wanted) * Math.log2(painted.count) +
      Math.min(unwanted.length, MAX_DRAWN.unwanted) * Math.log2(Math.max(1, this.readCount(idea) - painted.count));
    const exceptions = misses.length * (MISS_BITS + Math.log2(total + unwanted.length));
    return { idea, combination, count: painted.count, bits: bits + drawn + exceptions, misses, painted };
  }

  /** What a rule paints by itself: of a combination, by its formula. */
  painted(idea: RuleIdea): PaintedCells | undefined {
    const running = new RunningRule({ ...idea, id: '', name: '', on: true }, this.evaluation.world);
    const looks = this.given.wanted.map(({ look }) => look);
    return running.problem ? undefined : PaintedCells.byRule(running, looks);
  }

  private combined({ how, parts: [one, other] }: Combination): PaintedCells | undefined {
    const [left, right] = [this.ofPart(one), this.ofPart(other)];
    return left && right && PaintedCells.combined(left, right, how);
  }

  private ofPart(part: ConditionPart): PaintedCells | undefined {
    let painted = this.parts.get(part);
    if (!painted) {
      const { id } = this.evaluation.sheet.field(part.column);
      painted = this.painted({ reads: { fields: [id] }, when: part.when, paints: 'cell', settles: false, look: {} });
      if (painted) this.parts.set(part, painted);
    }
    return painted;
  }

  private readCount({ reads }: RuleIdea): number {
    const records = this.evaluation.sheet.slotsWithRoles(['record']).count();
    return 'fields' in reads ? records * reads.fields.length : records;
  }
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
