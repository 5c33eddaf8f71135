/** Limits of evaluations, in values read and made: cells visited, elements of arrays, and texts by their length. */
export interface WorkLimits {
  /** One formula. */
  readonly formula: number;
  /** The formulas of one rule, when all its cells are judged once. */
  readonly rule: number;
  /** All formulas and rules of a sheet, when everything is evaluated once. */
  readonly sheet: number;
  /** Where the formulas of a sheet go beyond its limit together, only those go on that need no more than this. */
  readonly light: number;
  /** Steps to find which cells are to be calculated, and in which order, of all formulas of a sheet together. */
  readonly scheduling: number;
}

export const WORK_LIMITS: WorkLimits = {
  formula: 10_000_000,
  rule: 200_000_000,
  sheet: 500_000_000,
  light: 256,
  scheduling: 50_000_000,
};

/** Characters of a text that count as one value. */
const CHARACTERS_A_VALUE = 16;

/**
 * An evaluation has used up its budget. `scope` says whose: that of one formula, or of everything that is evaluated
 * together.
 */
export class TooMuchWork extends Error {
  constructor(readonly scope: 'formula' | 'whole') {
    super('too much work');
  }
}

/** Counts something against a ceiling. */
class Counter {
  /** Counted so far, since it was made. */
  spent = 0;
  private ceiling = Infinity;

  /** Runs a task that may spend at most `budget`. Throws TooMuchWork where it needs more. */
  within<T>(budget: number, task: () => T): T {
    const before = this.ceiling;
    this.ceiling = this.spent + budget;
    try {
      return task();
    } finally {
      this.ceiling = before;
    }
  }

  /** Counts before the work is done. Throws TooMuchWork beyond the ceiling. */
  spend(count: number): void {
    this.spent += count;
    if (this.spent > this.ceiling) throw new TooMuchWork('whole');
  }
}

/**
 * Counts the work of a sheet's formulas, in values read and made, and ends an evaluation beyond its budget by throwing
 * TooMuchWork. It counts work and not time, so that every machine gives the same answer.
 */
export class WorkMeter extends Counter {
  /** The limit of a single formula now. */
  formulaLimit: number;
  /**
   * Steps to find which cells to calculate, and in which order. They are counted apart, as they depend on what was
   * calculated before, and the answer must not.
   */
  readonly scheduling = new Counter();

  constructor(readonly limits: WorkLimits = WORK_LIMITS) {
    super();
    this.formulaLimit = limits.formula;
  }

  /**
   * Counts what was spent since `before` as scheduling: for a run of a formula that is repeated once the cells it needs
   * are calculated.
   */
  countAsScheduling(before: number): void {
    const steps = this.spent - before;
    this.spent = before;
    this.scheduling.spend(steps);
  }
}

/** The cost of a text besides that of its cell. */
export const workOfText = (length: number): number => Math.floor(length / CHARACTERS_A_VALUE);
