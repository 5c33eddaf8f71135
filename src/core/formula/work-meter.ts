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
  /** Steps from edited cells to those that depend on them; where there are more, everything is calculated anew. */
  readonly spread: number;
}

export const WORK_LIMITS: WorkLimits = { formula: 10_000_000, rule: 200_000_000, sheet: 500_000_000, light: 256, spread: 50_000_000 };

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

  /** Counts values before they are read or made. */
  spend(count: number): void {
    this.spent += count;
    if (this.spent > this.ceiling) throw new TooMuchWork('whole');
  }
}

/** What a text costs besides the cell that it stands in. */
export const workOfText = (length: number): number => Math.floor(length / CHARACTERS_A_VALUE);
