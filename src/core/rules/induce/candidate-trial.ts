import type { Evaluation } from '../evaluate/evaluation';
import { RunningRule } from '../evaluate/running-rule';
import type { RuleIdea } from '../shape/rule-idea';
import type { Candidate } from './candidate-search';
import type { Combination, ConditionPart } from './combine-conditions';
import { PaintedCells } from './painted-cells';
import type { ExamplesGiven, Proposal } from './proposal';

/** Bits for an example that does not fit, besides which one it is. */
const MISS_BITS = 6;
/** Examples that count as drawn from what is painted, and from the rest; more are answers to what was asked. */
const MAX_DRAWN = { wanted: 2, unwanted: 1 } as const;

/** Finds what candidates paint. The parts of combinations are evaluated once, whatever the number of these. */
export class CandidateTrial {
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
    return { idea, combination, count: painted.count, bits: bits + drawn + exceptions, misses, painted, same: [] };
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
