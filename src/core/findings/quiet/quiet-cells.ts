import { quietLimits, type Quiet, type QuietLimits } from '../../rules/shape/quiet';
import type { FieldId, RowId } from '../../sheet/ids';
import { QuietCell, type Report } from './quiet-cell';

const DAY_MS = 86_400_000;

/** Cells of one rule that are remembered: beyond them it is a change of everything, and the rest counts as reported. */
const MAX_CELLS = 2000;

interface CellOf {
  readonly row: RowId;
  readonly field: FieldId;
}

/** A cell as it is kept in the database: -Infinity is null there. */
export interface KeptCell extends CellOf {
  readonly outcome: number;
  readonly since: number | null;
  readonly isReported: boolean;
  readonly reportedAt: number | null;
}

/** By rule: the cells of which more is known than their outcome. */
export type KeptQuiet = Readonly<Record<string, readonly KeptCell[]>>;

/** The cells of a quiet rule of which more is known than the outcome that they have. Moments are in milliseconds. */
export class QuietCells {
  private readonly cells = new Map<string, CellOf & { readonly state: QuietCell }>();
  private readonly limits: QuietLimits;
  private readonly canStay: boolean;
  /** Whether anything is another than when it was taken last. */
  isChanged = true;

  constructor(quiet: Quiet) {
    const { hold, every } = quietLimits(quiet);
    this.canStay = quiet.rearm !== undefined;
    this.limits = { hold: Math.round(hold * DAY_MS), every: Math.round(every * DAY_MS) };
  }

  /** When the next cell has something to report, where nothing changes until then. */
  get nextAt(): number {
    let next = Infinity;
    for (const { state } of this.cells.values()) next = Math.min(next, state.dueAt(this.limits));
    return next;
  }

  /** Moves a cell from one outcome to another, and gives what is to be reported. */
  move(cell: CellOf, { at, from, to }: { readonly at: number; readonly from: number; readonly to: number }): Report[] {
    this.isChanged = true;
    return this.remember(cell, from).move(at, to, this.limits);
  }

  /** The state of a cell: what is known of it, or that it has an outcome since long. */
  remember({ row, field }: CellOf, outcome: number): QuietCell {
    const key = keyOf(row, field);
    const known = this.cells.get(key)?.state;
    if (known) return known;
    this.isChanged = true;
    const state = new QuietCell(outcome);
    if (this.cells.size < MAX_CELLS) this.cells.set(key, { row, field, state });
    return state;
  }

  /** What the cells report up to a moment, as time goes by. */
  report(until: number): { readonly cell: CellOf; readonly report: Report }[] {
    const all = [...this.cells.values()].flatMap(({ row, field, state }) =>
      state.report(until, this.limits).map((report) => ({ cell: { row, field }, report })),
    );
    if (all.length) this.isChanged = true;
    return all;
  }

  /** What is known, to be kept; what need not be remembered any more is forgotten. */
  take(now: number): KeptCell[] {
    this.isChanged = false;
    return [...this.cells].flatMap(([key, { row, field, state }]) => {
      const { outcome, since, isReported, reportedAt } = state;
      // A cell that the condition no longer matches may still be in the rule: that is known from here alone.
      if (state.isPlain(now, this.limits) && !(this.canStay && outcome >= 0)) {
        this.cells.delete(key);
        return [];
      }
      return [{ row, field, outcome, since: finite(since), isReported, reportedAt: finite(reportedAt) }];
    });
  }

  /** Goes on with what was kept; `place` sets the outcome of a cell, and says whether it is still there. */
  restore(kept: readonly KeptCell[], place: (cell: CellOf, outcome: number) => boolean): void {
    for (const { row, field, outcome, since, isReported, reportedAt } of kept) {
      if (!place({ row, field }, outcome)) continue;
      const state = new QuietCell(outcome, {
        since: since ?? -Infinity,
        isReported,
        reportedAt: reportedAt ?? -Infinity,
      });
      this.cells.set(keyOf(row, field), { row, field, state });
    }
    this.isChanged = false;
  }
}

const keyOf = (row: RowId, field: FieldId): string => `${row} ${field}`;

const finite = (moment: number): number | null => (Number.isFinite(moment) ? moment : null);
