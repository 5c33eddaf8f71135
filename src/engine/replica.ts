import type { Theme } from '../core/looks/first-family';
import { looksById, lookParts, sheetLooks } from '../core/looks/sheet-looks';
import type { Look } from '../core/looks/look';
import { CellPast } from '../core/rules/cell-past';
import { Evaluation } from '../core/rules/evaluation';
import equal from 'fast-deep-equal';
import type { Change, Operation, StoredRule } from '../core/sheet/change';
import type { Effect } from '../core/sheet/effect';
import type { Sheet } from '../core/sheet/sheet';
import { serialInZone } from '../core/values/serial-in-zone';
import type { RecordedChange, SheetPast } from '../protocol/recorded-change';

interface Pending {
  readonly change: Change;
  inverse: readonly Operation[];
}

/** Operations on their way into the sheet: what takes them back, and what they touched since rules were last judged. */
interface Course {
  readonly inverse: Operation[];
  effects: Effect[];
}

/** Cells that are set without a rest between: a few hundredths of a second. */
const CELLS_A_PART = 5000;

/**
 * A copy of a sheet that takes changes at once and agrees with the server in the end. Changes of one's own wait in
 * `pending` until they come back; a change of somebody else that arrives meanwhile goes in beneath them, so that
 * everybody applies the same changes in the same order.
 */
export class Replica {
  readonly evaluation: Evaluation;
  /** The sequence with which the sheet was opened: what came before it is the past. */
  readonly openedAt: number;
  /** What cells held before, by the changes that the server has taken. */
  private readonly past: CellPast;
  private pending: Pending[] = [];
  private draft: StoredRule | null = null;
  saved: Readonly<Record<string, Look>>;
  private theme: Theme;

  constructor(
    readonly sheet: Sheet,
    /** Sequence of the last change from the server that is in. */
    public sequence: number,
    { theme, nowMs }: { readonly theme: Theme; readonly nowMs: number },
  ) {
    this.theme = theme;
    this.openedAt = sequence;
    this.saved = this.looks();
    this.past = new CellPast(sheet);
    this.evaluation = new Evaluation(sheet, this.saved, { now: serialInZone(nowMs, sheet.settings.zone), history: this.past });
    this.useRules();
  }

  get waiting(): readonly Change[] {
    return this.pending.map(({ change }) => change);
  }

  useTheme(theme: Theme): void {
    this.theme = theme;
    this.refreshLooks();
  }

  private looks(): Readonly<Record<string, Look>> {
    return looksById(sheetLooks(lookParts(this.sheet.parts.values()), this.theme));
  }

  private refreshLooks(): void {
    this.saved = this.looks();
    this.evaluation.setSavedLooks(this.saved);
  }

  /** The clock has moved on: what hangs on it is judged anew. */
  tick(nowMs: number): void {
    this.evaluation.tick(serialInZone(nowMs, this.sheet.settings.zone));
  }

  /** A rule that is being worked on: at work here alone, in the place of the kept rule with its id if there is one. */
  setDraft(draft: StoredRule | null): void {
    this.draft = draft;
    this.useRules();
  }

  get draftId(): string | undefined {
    return this.draft?.id;
  }

  /** The rules at work, the draft among them, in order of precedence. */
  rulesAtWork(): StoredRule[] {
    const rules = this.sheet.rulesInOrder();
    if (!this.draft) return rules;
    const draft = this.draft;
    const at = rules.findIndex((rule) => rule.id === draft.id);
    if (at >= 0) return rules.with(at, draft);
    const before = rules.findIndex((rule) => rule.key > draft.key);
    return before < 0 ? [...rules, draft] : rules.toSpliced(before, 0, draft);
  }

  /** Applies a change of one's own. Returns the operations that take it back. */
  apply(change: Change): readonly Operation[] {
    const inverse = this.run(change.operations);
    this.pending.push({ change, inverse });
    return inverse;
  }

  /** As `apply`, in parts, with `rest` after each, which hears the share that is done. Where it throws, everything is as it was. */
  async applyInParts(change: Change, rest: (share: number) => Promise<void>): Promise<readonly Operation[]> {
    const parts = change.operations.flatMap(inParts);
    const course: Course = { inverse: [], effects: [] };
    try {
      for (const [at, part] of parts.entries()) {
        this.take(part, course);
        await rest((at + 1) / (parts.length + 2));
      }
      this.settle(course);
      await rest(1);
    } catch (stopped) {
      for (const operation of [...course.inverse]) this.take(operation, course);
      this.settle(course);
      throw stopped;
    }
    this.pending.push({ change, inverse: course.inverse });
    return course.inverse;
  }

  /** Takes in a change from the server's log; one that is in already is passed over. */
  receive({ sequence, at, change }: RecordedChange): void {
    if (sequence <= this.sequence) return;
    this.sequence = sequence;
    if (this.pending[0]?.change.id === change.id) {
      const { inverse } = this.pending.shift()!;
      this.past.add({ sequence, at, inverse });
      this.evaluation.pastGrew();
      return;
    }
    const mine = this.rewind();
    this.past.add({ sequence, at, inverse: this.run(change.operations) });
    this.evaluation.pastGrew();
    this.replay(mine.filter((pending) => pending.change.id !== change.id));
  }

  /** Takes in what happened before the sheet was opened. */
  usePast({ from, isWhole, changes }: SheetPast): void {
    for (const change of changes) this.past.add(change);
    this.past.knowsFrom(from, isWhole);
    this.evaluation.pastGrew();
  }

  /** Takes back a change that the server did not accept; those after it are applied anew. */
  refuse(changeId: string): void {
    this.replay(this.rewind().filter((pending) => pending.change.id !== changeId));
  }

  private rewind(): Pending[] {
    const mine = this.pending;
    this.pending = [];
    for (const { inverse } of mine.toReversed()) this.run(inverse);
    return mine;
  }

  private replay(changes: readonly Pending[]): void {
    for (const { change } of changes) this.apply(change);
  }

  private run(operations: readonly Operation[]): readonly Operation[] {
    const course: Course = { inverse: [], effects: [] };
    for (const operation of operations) this.take(operation, course);
    this.settle(course);
    return course.inverse;
  }

  private take(operation: Operation, course: Course): void {
    const applied = this.sheet.apply(operation);
    course.inverse.unshift(...applied.inverse);
    for (const effect of applied.effects) course.effects.push(effect);
  }

  /** Judges anew what the operations so far have touched. */
  private settle(course: Course): void {
    const { effects } = course;
    course.effects = [];
    // Statistics are corrected for edits first: a rule that is compiled now has seen the new values already.
    this.evaluation.follow(effects);
    if (effects.some((effect) => effect.kind === 'layout') && !equal(this.saved, this.looks())) this.refreshLooks();
    if (effects.some((effect) => effect.kind === 'rules')) this.useRules();
  }

  private useRules(): void {
    this.evaluation.setRules(this.rulesAtWork().map(({ rule }) => rule));
  }
}

/** An operation on many cells as several on fewer. */
function inParts(operation: Operation): Operation[] {
  if (operation.kind !== 'set-cells') return [operation];
  return Array.from({ length: Math.ceil(operation.cells.length / CELLS_A_PART) }, (_, at) => ({
    ...operation,
    cells: operation.cells.slice(at * CELLS_A_PART, (at + 1) * CELLS_A_PART),
  }));
}
