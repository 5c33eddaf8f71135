import { RuleWatch } from '../../core/findings/rule-watch';
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

  usePast(past: SheetPast): void {
    this.replica.usePast(past);
    this.watch.restart();
  }

  /** Takes changes in, one after the other, and gives what each brought about. */
  take(changes: readonly RecordedChange[]): FoundAt[] {
    return changes.flatMap((change) => {
      const byClock = change.at - this.clock >= CLOCK_STEP_MS ? this.tick(change.at) : [];
      return [...byClock, this.takeOne(change)];
    });
  }

  /** The clock has moved on. */
  tick(nowMs: number): FoundAt[] {
    this.clock = nowMs;
    const { evaluation } = this.replica;
    if (!evaluation.activeRules.some(({ isTimeDependent }) => isTimeDependent)) return [];
    this.replica.tick(nowMs);
    const findings = this.watch.crossings().map((crossing) => ({ ...crossing, before: crossing.after }));
    return findings.length ? [{ sequence: null, at: nowMs, findings }] : [];
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
      .crossings()
      .map((crossing) => ({ ...crossing, before: shown.get(`${crossing.row} ${crossing.field}`) ?? crossing.after }));
    return { sequence: change.sequence, at: change.at, findings };
  }
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
  readonly past: { readonly asked: { readonly past: SheetPast }; readonly answer: null };
  readonly take: {
    readonly asked: { readonly changes: readonly RecordedChange[] };
    readonly answer: readonly FoundAt[];
  };
  readonly tick: { readonly asked: { readonly nowMs: number }; readonly answer: readonly FoundAt[] };
  readonly close: { readonly asked: object; readonly answer: null };
};
