/** What evaluations may do, in values read and made: cells visited, elements of arrays, and texts by their length. */
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

export const WORK_LIMITS: WorkLimits = { formula: 10_000_000, rule: 200_000_000, sheet: 500_000_000, light: 256, scheduling: 50_000_000 };

/** Characters of a text that count as one value. */
const CHARACTERS_A_VALUE = 16;

/** An evaluation has used up its budget. `scope` says whose: that of one formula, or of everything that is evaluated together. */
export class TooMuchWork extends Error {
  constructor(readonly scope: 'formula' | 'whole') {
    super('too much work');
  }
}

/**
 * Counts the work of a sheet's formulas, in values read and made, and ends an evaluation that goes beyond its budget by throwing
 * TooMuchWork. Counts and not time, so that every machine comes to the same answer.
 */
export class WorkMeter {
  /** Values counted so far, since the meter was made. */
  spent = 0;
  /** What a single formula may spend now. */
  formulaLimit: number;
  private ceiling = Infinity;
  /** Steps of scheduling counted so far. */
  scheduled = 0;
  private schedulingCeiling = Infinity;

  constructor(readonly limits: WorkLimits = WORK_LIMITS) {
    this.formulaLimit = limits.formula;
  }

  /** Runs a task that may spend at most `budget` values. Throws TooMuchWork where it needs more. */
  within<T>(budget: number, task: () => T): T {
    const before = this.ceiling;
    this.ceiling = this.spent + budget;
    try {
      return task();
    } finally {
      this.ceiling = before;
    }
  }

  /** The same for a task that may take at most so many steps of scheduling. */
  scheduledWithin<T>(steps: number, task: () => T): T {
    const before = this.schedulingCeiling;
    this.schedulingCeiling = this.scheduled + steps;
    try {
      return task();
    } finally {
      this.schedulingCeiling = before;
    }
  }

  /** Counts values before they are read or made. */
  spend(count: number): void {
    this.spent += count;
    if (this.spent > this.ceiling) throw new TooMuchWork('whole');
  }

  /** Counts steps to find what is to be calculated: apart, as they depend on what was calculated before, which the answer must not. */
  schedule(steps: number): void {
    this.scheduled += steps;
    if (this.scheduled > this.schedulingCeiling) throw new TooMuchWork('whole');
  }

  /** Counts what was spent since `before` as scheduling: on a formula that turned out to need other cells first, and is run again. */
  countAsScheduling(before: number): void {
    const steps = this.spent - before;
    this.spent = before;
    this.schedule(steps);
  }
}

/** What a text costs besides the cell that it stands in. */
export const workOfText = (length: number): number => Math.floor(length / CHARACTERS_A_VALUE);
