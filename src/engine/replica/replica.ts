import equal from 'fast-deep-equal';
import type { Theme } from '../../core/looks/first-family';
import { savedLooks } from '../../core/sheet/sheet-looks';
import type { Look } from '../../core/looks/look';
import { CellPast } from '../../core/rules/evaluate/cell-past';
import { Evaluation } from '../../core/rules/evaluate/evaluation';
import type { ResolvedLook } from '../../core/rules/evaluate/resolver';
import { showsAt } from '../../core/rules/evaluate/shows-at';
import type { Change, Operation } from '../../core/sheet/change';
import { rulesOf, type StoredRule } from '../../core/rules/shape/stored-rule';
import type { Effect } from '../../core/sheet/effect';
import { byKey } from '../../core/sheet/compare-keys';
import type { RuleId } from '../../core/sheet/ids';
import type { Sheet } from '../../core/sheet/sheet';
import { serialInZone } from '../../core/values/dates/serial-in-zone';
import type { Repaint } from '../../protocol/packed/painted-sheet';
import type { RecordedChange, SheetPast } from '../../protocol/recorded-change';
import type { WholeTable } from '../link/whole-table';
import type { GivenLooks } from './given-looks';

interface Pending {
  readonly change: Change;
  inverse: readonly Operation[];
}

/** Operations that are being applied: their inverse, and their effects since rules were last evaluated. */
interface Course {
  readonly inverse: Operation[];
  effects: Effect[];
  /** All that is different since the course began, results of formulas too. */
  readonly touched: Effect[];
}

interface ReplicaOptions {
  readonly theme: Theme;
  readonly nowMs: number;
  readonly given?: GivenLooks | null;
  readonly whole?: WholeTable | null;
}

/** Cells that are set without a rest between: a few hundredths of a second. */
const CELLS_A_PART = 5000;

/**
 * A copy of a sheet that applies changes at once and agrees with the server in the end. Own changes wait in `pending`
 * until they come back; a change of somebody else that arrives meanwhile goes in beneath them, so that everybody
 * applies the same changes in the same order.
 */
export class Replica {
  readonly evaluation: Evaluation;
  /** The looks that the server gave, where no rules are evaluated here. */
  readonly given: GivenLooks | null;
  /** What rules come to over all records, where only some are here. */
  readonly whole: WholeTable | null;
  /** The revision of the given looks. */
  revision = 0;
  /** The sequence with which the sheet was opened: what came before it is the past. */
  readonly openedAt: number;
  /** The past contents of cells, by the changes that the server has taken. */
  readonly past: CellPast;
  private pending: Pending[] = [];
  private draft: StoredRule | null = null;
  /** Personal rules, active here alone. */
  personal: readonly StoredRule[] = [];
  saved: Readonly<Record<string, Look>>;
  private theme: Theme;

  constructor(
    readonly sheet: Sheet,
    /** Sequence of the last change from the server that is in. */
    public sequence: number,
    { theme, nowMs, given = null, whole = null }: ReplicaOptions,
  ) {
    this.given = given;
    this.theme = theme;
    this.openedAt = sequence;
    this.saved = this.looks();
    this.past = new CellPast(sheet);
    this.evaluation = new Evaluation(sheet, this.saved, {
      now: serialInZone(nowMs, sheet.settings.zone),
      history: this.past,
      given: whole,
    });
    this.whole = whole;
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
    return savedLooks(this.sheet.parts.values(), this.theme);
  }

  private refreshLooks(): void {
    this.saved = this.looks();
    this.evaluation.setSavedLooks(this.saved);
  }

  /** The clock has moved on: evaluates what is time-dependent. */
  tick(nowMs: number): void {
    this.evaluation.tick(serialInZone(nowMs, this.sheet.settings.zone));
  }

  /** The draft: active here alone, instead of the kept rule with its id if there is one. */
  setDraft(draft: StoredRule | null): void {
    this.draft = draft;
    this.useRules();
  }

  /** Sets the personal rules that are active with the others. */
  setPersonal(rules: readonly StoredRule[]): void {
    this.personal = rules;
    this.useRules();
  }

  get draftId(): string | undefined {
    return this.draft?.id;
  }

  /** The active rules, the draft among them, in order of precedence. */
  rulesAtWork(): StoredRule[] {
    const rules = this.personal.length ? [...rulesOf(this.sheet), ...this.personal].sort(byKey) : rulesOf(this.sheet);
    if (!this.draft) return rules;
    const draft = this.draft;
    const at = rules.findIndex((rule) => rule.id === draft.id);
    if (at >= 0) return rules.with(at, draft);
    const before = rules.findIndex((rule) => rule.key > draft.key);
    return before < 0 ? [...rules, draft] : rules.toSpliced(before, 0, draft);
  }

  /** Applies an own change. Returns its inverse. */
  apply(change: Change): readonly Operation[] {
    const { inverse } = this.run(change.operations);
    this.pending.push({ change, inverse });
    return inverse;
  }

  /**
   * As `apply`, in parts, with `rest` after each, which hears the share that is done. Where it throws, everything is as
   * it was.
   */
  async applyInParts(change: Change, rest: (share: number) => Promise<void>): Promise<readonly Operation[]> {
    const parts = change.operations.flatMap(inParts);
    const course: Course = { inverse: [], effects: [], touched: [] };
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

  /** Applies a change of the server's log. Returns its effects: none where it was applied before. */
  receive(change: RecordedChange): readonly Effect[] {
    return this.receiveAll([change]);
  }

  /**
   * Applies changes of the server's log, in order. The pending changes of this page are rewound and replayed once for
   * all of them.
   */
  receiveAll(changes: readonly RecordedChange[]): readonly Effect[] {
    const touched: Effect[] = [];
    const known = new Set<string>();
    let mine: readonly Pending[] | null = null;
    for (const { sequence, at, change } of changes) {
      if (sequence <= this.sequence) continue;
      this.sequence = sequence;
      known.add(change.id);
      if (mine === null && this.pending[0]?.change.id === change.id) {
        this.past.add({ sequence, at, inverse: this.pending.shift()!.inverse });
        continue;
      }
      mine ??= this.rewind();
      const course = this.run(change.operations);
      this.past.add({ sequence, at, inverse: course.inverse });
      for (const effect of course.touched) touched.push(effect);
    }
    if (known.size > 0) this.evaluation.onHistoryExtended();
    this.replay((mine ?? []).filter((pending) => !known.has(pending.change.id)));
    return touched;
  }

  /** Applies what has become different for a reader without rules. */
  repaint({ revision, sequence, changes, values, looks, cells }: Repaint): void {
    const mine = this.rewind();
    for (const { change } of changes) this.run(change.operations);
    if (values.length) this.run([{ kind: 'set-cells', cells: values }]);
    this.given?.take({ looks, cells });
    this.sequence = Math.max(this.sequence, sequence);
    this.revision = revision;
    const told = new Set(changes.map(({ change }) => change.id));
    this.replay(mine.filter(({ change }) => !told.has(change.id)));
  }

  /** The server has taken an own change. Where the sheet was opened with it in, nothing is left to wait for. */
  acknowledge(changeId: string, sequence: number): void {
    if (sequence <= this.sequence && this.pending.some(({ change }) => change.id === changeId))
      this.replay(this.rewind().filter(({ change }) => change.id !== changeId));
  }

  /** The final look of a cell. */
  resolvedLook(column: number, slot: number): ResolvedLook {
    return (this.given ?? this.evaluation.resolver).resolve(column, slot);
  }

  /** Words for looks: the names of rules, which a look refers to by index. */
  lookNames(): readonly string[] {
    return this.given?.names ?? this.evaluation.activeRules.map(({ rule }) => rule.name);
  }

  /** Which cells a rule gives a look; undefined where there is no such rule. */
  shownBy(id: RuleId): ((column: number, slot: number) => boolean) | undefined {
    const { given } = this;
    if (given) return (column, slot) => given.isMadeBy(id, column, slot);
    const found = this.evaluation.activeRules.find(({ rule }) => rule.id === id);
    return found && ((column, slot) => showsAt(found, column, slot));
  }

  /** A text that is another one whenever the sheet or its known past is. */
  get pastVersion(): string {
    return `${this.sequence} ${this.pending.map(({ change }) => change.id).join()} ${this.past.knownFrom}`;
  }

  /** Adds changes from before the sheet was opened. */
  usePast({ from, isWhole, changes }: SheetPast): void {
    for (const change of changes) this.past.add(change);
    this.past.knowsFrom(from, isWhole);
    this.evaluation.onHistoryExtended();
  }

  /** Rolls back a change that the server refused; those after it are applied again. */
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

  private run(operations: readonly Operation[]): Course {
    const course: Course = { inverse: [], effects: [], touched: [] };
    for (const operation of operations) this.take(operation, course);
    this.settle(course);
    return course;
  }

  private take(operation: Operation, course: Course): void {
    const applied = this.sheet.apply(operation);
    course.inverse.unshift(...applied.inverse);
    for (const effect of applied.effects) course.effects.push(effect);
  }

  /** Evaluates what the operations so far have touched. */
  private settle(course: Course): void {
    const { effects } = course;
    course.effects = [];
    // Statistics are corrected for edits first: a rule that is compiled now has seen the new values already.
    for (const effect of this.evaluation.follow(effects)) course.touched.push(effect);
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
