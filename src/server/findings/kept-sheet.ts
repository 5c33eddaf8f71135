import type { KeptQuiet } from '../../core/findings/quiet/quiet-cells';
import { RuleWatch, type Crossing } from '../../core/findings/rule-watch';
import type { Effect } from '../../core/sheet/effect';
import { shownAt } from '../../core/sheet/shown-cell';
import { numberText } from '../../core/values/number-text';
import { Replica } from '../../engine/replica/replica';
import type { NewFinding } from '../../protocol/findings';
import { unpackSheet } from '../../protocol/packed/packed-sheet';
import type { RecordedChange, SheetPast } from '../../protocol/recorded-change';
import { unzipPacked } from '../sheets/unzip-packed';

/** The effects of one change; without a sequence, of the clock. */
export interface FoundAt {
  readonly sequence: number | null;
  readonly at: number;
  readonly findings: readonly NewFinding[];
}

/** What a sheet brought about since it was last asked. */
export interface Looked {
  readonly found: readonly FoundAt[];
  /** What is known of the cells of quiet rules, and when the next has something to report; null where it is as before. */
  readonly quiet: QuietKnown | null;
}

export interface QuietKnown {
  /** Null where no rule is quiet. */
  readonly known: KeptQuiet | null;
  /** Milliseconds of the Unix epoch; null where nothing waits. */
  readonly nextAt: number | null;
}

/** The clock is looked at again when this much time lies between two changes. */
const CLOCK_STEP_MS = 60_000;

/** A sheet that is evaluated for its findings alone. */
export class KeptSheet {
  private readonly replica: Replica;
  private readonly watch: RuleWatch;
  private clock: number;

  /** `packed` is the sheet as it was at the moment up to which its findings are known. */
  constructor(packed: Uint8Array, atMs: number) {
    const { sheet, head } = unpackSheet(unzipPacked(packed));
    this.clock = atMs;
    this.replica = new Replica(sheet, head.sequence, { theme: 'light', nowMs: atMs });
    this.watch = new RuleWatch(this.replica.evaluation);
  }

  get sequence(): number {
    return this.replica.sequence;
  }

  /** The sequence up to which the history is needed, because a rule depends on it; null where none does. */
  get wantsPast(): number | null {
    return this.replica.evaluation.needsHistory ? this.replica.openedAt : null;
  }

  /** Goes on from where its findings are known: with the history, where a rule wants it, and the state of quiet rules. */
  resume(past: SheetPast | null, quiet: KeptQuiet | null): void {
    if (past) this.replica.usePast(past);
    this.watch.restart(quiet ?? {});
  }

  /** Takes changes in, one after the other, and gives what each brought about. */
  take(changes: readonly RecordedChange[]): Looked {
    const found = changes.flatMap((change) => {
      const due = this.due(change.at);
      const byClock = change.at - this.clock >= CLOCK_STEP_MS ? this.moveClock(change.at) : [];
      return [...due, ...byClock, this.takeOne(change)];
    });
    return { found, quiet: this.takeQuiet() };
  }

  /** The clock has moved on. */
  tick(nowMs: number): Looked {
    const found = [...this.due(nowMs), ...this.moveClock(nowMs)];
    return { found, quiet: this.takeQuiet() };
  }

  private moveClock(nowMs: number): FoundAt[] {
    this.clock = nowMs;
    const { evaluation } = this.replica;
    if (!evaluation.activeRules.some(({ isTimeDependent }) => isTimeDependent)) return [];
    this.replica.tick(nowMs);
    return byClock(nowMs, this.watch.crossings(nowMs));
  }

  /** What quiet rules waited with until a moment. */
  private due(until: number): FoundAt[] {
    return this.watch.due(until).flatMap(({ at, crossings }) => byClock(at, crossings));
  }

  private takeQuiet(): QuietKnown | null {
    const taken = this.watch.takeQuiet(this.clock);
    if (!taken) return null;
    const { known, nextAt } = taken;
    return {
      known: Object.keys(known).length > 0 ? known : null,
      nextAt: nextAt === Infinity ? null : nextAt,
    };
  }

  private takeOne(change: RecordedChange): FoundAt {
    const { sheet } = this.replica;
    const shown = new Map<string, string>();
    const remember = (row: string, field: string): void => {
      const cell = sheet.findCell({ row, field });
      if (cell) shown.set(`${row} ${field}`, shownAt(sheet, cell.column, cell.slot));
    };
    for (const operation of change.change.operations) {
      if (operation.kind === 'set-cells') for (const { row, field } of operation.cells) remember(row, field);
      if (operation.kind === 'insert-rows')
        for (const { id: row } of operation.rows) for (const { id } of sheet.fields) shown.set(`${row} ${id}`, '');
      if (operation.kind === 'remove-rows')
        for (const row of operation.rows) for (const { id } of sheet.fields) remember(row, id);
    }
    for (const effect of this.replica.receive(change)) noteBefore(effect, this.replica, shown);
    const findings = this.watch
      .crossings(change.at)
      .map((crossing) => ({ ...crossing, before: shown.get(`${crossing.row} ${crossing.field}`) ?? crossing.after }));
    return { sequence: change.sequence, at: change.at, findings };
  }
}

/** What came about without a change. */
function byClock(at: number, crossings: readonly Crossing[]): FoundAt[] {
  const findings = crossings.map((crossing) => ({ ...crossing, before: crossing.after }));
  return findings.length ? [{ sequence: null, at, findings }] : [];
}

/** Remembers the number that a formula gave before. */
function noteBefore(effect: Effect, { sheet }: Replica, shown: Map<string, string>): void {
  if (effect.kind !== 'cell') return;
  const key = `${sheet.rowId(effect.slot)} ${sheet.field(effect.column).id}`;
  if (!shown.has(key) && !Number.isNaN(effect.before.number)) shown.set(key, numberText(effect.before.number));
}

/** The requests of the findings' worker; each is about one sheet. */
export type FindingsRequests = {
  readonly open: {
    readonly asked: { readonly packed: Uint8Array; readonly atMs: number };
    readonly answer: { readonly wantsPast: number | null };
  };
  readonly resume: {
    readonly asked: { readonly past: SheetPast | null; readonly quiet: KeptQuiet | null };
    readonly answer: null;
  };
  readonly take: {
    readonly asked: { readonly changes: readonly RecordedChange[] };
    readonly answer: Looked;
  };
  readonly tick: { readonly asked: { readonly nowMs: number }; readonly answer: Looked };
  readonly close: { readonly asked: object; readonly answer: null };
};
