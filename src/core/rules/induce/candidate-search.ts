import { isInUse } from '../compile/reach';
import type { Evaluation } from '../evaluate/evaluation';
import { KIND_NAMES, KINDS, type KindName, type When } from '../kinds/registry';
import { Evidence, type ExampleCell } from '../propose/evidence';
import { candidatesOf, isOfStatistics, lengthOf } from '../propose/registry';
import type { RuleIdea } from '../shape/rule-idea';
import type { FieldId } from '../../sheet/ids';
import type { Sheet } from '../../sheet/sheet';
import { combineConditions, combinedWhen, type Combination } from './combine-conditions';
import type { ExamplesGiven } from './proposal';

/** Kinds that look at each record by itself: the others are proposed only over the fields that were pointed at. */
const BY_RECORD = KIND_NAMES.filter((kind) => !isOfStatistics(kind));
/** Bits for reading another field than the one that was pointed at. */
const OTHER_FIELD_BITS = 12;
/** Bits for a combination, besides its parts. */
const COMBINATION_BITS = 6;

/** A rule that may fit, and its length in bits. */
export interface Candidate {
  readonly idea: RuleIdea;
  readonly bits: number;
  readonly combination?: Combination;
}

/** What can be said of the examples: by the fields that were pointed at, by others, by two conditions together. */
export class CandidateSearch {
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
    // One of several fields that were pointed at may decide for all of them.
    const others = readable
      .filter((column) => isRecord || pointed.length > 1 || !pointed.includes(column))
      .map((column) => this.over([column], false));
    const own = isRecord || given.reads !== undefined ? undefined : this.over(pointed, true);
    const isFar = ({ column }: Evidence): boolean =>
      !isRecord && given.reads === undefined && !pointed.includes(column);
    const whichBits = Math.log2(others.length || 1);
    const kinds = isRecord ? KIND_NAMES : BY_RECORD;
    return [
      ...(own ? this.ofField(own, KIND_NAMES, 0) : []),
      ...others.flatMap((evidence) =>
        this.ofField(evidence, kinds, whichBits + (isFar(evidence) ? OTHER_FIELD_BITS : 0)),
      ),
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
    const usable = kinds.filter((kind) => (KINDS[kind].outcomes === 'several') === this.isSeveral);
    const namables = { fields: this.sheet.fields.length, values: evidence.valueCount };
    return [...candidatesOf(usable, evidence)].map((when) => ({
      idea: this.idea(evidence, when),
      bits: extraBits + lengthOf(when, namables),
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
