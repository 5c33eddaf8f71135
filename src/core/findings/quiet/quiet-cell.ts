import type { QuietLimits } from '../../rules/shape/quiet';

/** That a cell has entered a quiet rule, or left it. */
export interface Report {
  readonly way: 'entered' | 'left';
  readonly outcome: number;
  readonly at: number;
}

/**
 * One cell under a quiet rule. That it entered is reported once it has had its outcome for the time that the rule holds,
 * and not sooner after the last report than the rule allows; that it left, only where its entering was reported. Moments
 * and limits are in one unit.
 */
export class QuietCell {
  /** Since when it has its outcome, and whether that was reported. */
  since = -Infinity;
  isReported: boolean;
  /** When it was last reported that it entered. */
  reportedAt = -Infinity;

  /** It has an outcome (-1 for none) since long, or since when is known. */
  constructor(
    public outcome: number,
    known: Partial<Pick<QuietCell, 'since' | 'isReported' | 'reportedAt'>> = {},
  ) {
    this.isReported = outcome >= 0;
    Object.assign(this, known);
  }

  /** When its entering will be reported; infinite where it was, or where there is nothing to report. */
  dueAt({ hold, every }: QuietLimits): number {
    return this.outcome < 0 || this.isReported ? Infinity : Math.max(this.since + hold, this.reportedAt + every);
  }

  /** What is to be reported up to a moment. */
  report(until: number, limits: QuietLimits): Report[] {
    const at = this.dueAt(limits);
    if (!(at <= until)) return [];
    this.isReported = true;
    this.reportedAt = at;
    return [{ way: 'entered', outcome: this.outcome, at }];
  }

  /** It has another outcome from a moment on. What is to be reported up to then, and of that. */
  move(at: number, outcome: number, limits: QuietLimits): Report[] {
    const reports = this.report(at, limits);
    if (outcome === this.outcome) return reports;
    if (this.isReported) reports.push({ way: 'left', outcome: this.outcome, at });
    this.outcome = outcome;
    this.since = at;
    this.isReported = false;
    return [...reports, ...this.report(at, limits)];
  }

  /** Whether nothing has to be remembered of it but its outcome. */
  isPlain(now: number, { every }: QuietLimits): boolean {
    return this.isReported === this.outcome >= 0 && this.reportedAt + every <= now;
  }
}
