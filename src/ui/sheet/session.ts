import { nanoid } from 'nanoid';
import type { Theme } from '../../core/looks/first-family';
import type { KindName } from '../../core/rules/kinds/registry';
import { kindOf, KINDS } from '../../core/rules/kinds/registry';
import { isSameRule } from '../../core/rules/is-same-rule';
import type { Rule } from '../../core/rules/rule';
import { ruleSentence } from '../../core/rules/sentence-words';
import type { StoredRule } from '../../core/sheet/change';
import type { RuleId, SheetId } from '../../core/sheet/ids';
import type { AnswerOf, Area, CellIds, Event, Filter, LegendEntry, Request, Selection, ShownField } from '../../protocol/engine-messages';
import { selectCell, selectedArea } from '../grid/engine/selection';
import { EngineClient } from './engine-client';
import { isAllowed } from '../../core/sheet/allowed-values';
import { keysAt } from '../../core/sheet/keys-at';
import { Pointing } from '../formula/pointing';
import { SheetActions } from './sheet-actions';
import { START, stateAfter, type Editing, type SessionState } from './session-state';

/** How long the page may wait for the engine before it puts the editor away: longer than an answer takes, shorter than is felt. */
const LONGEST_HOLD_MS = 24;
/** What takes longer is said to be under way. */
const SLOW_MS = 300;

/** One person's work on one open sheet: what the screen shows, and everything that can be done to it. */
export class Session {
  private state = START;
  private readonly listeners = new Set<() => void>();
  /** While not `no`, listeners hear of nothing: `gathering` to the end of the event that began it, then `waiting` for the engine. */
  private hold: 'no' | 'gathering' | 'waiting' = 'no';
  private engine: EngineClient | null = null;
  private draftSending: 'no' | 'yes' | 'again' = 'no';
  private profileSending: 'no' | 'yes' | 'again' = 'no';

  /** What is done to cells, rows and fields. */
  readonly actions = new SheetActions(this);
  /** How references are put into the formula that is being typed. */
  readonly pointing = new Pointing(this);

  constructor(private readonly sheet: SheetId) {}

  /** Starts the engine and opens the sheet. Returns how to end it; it can be started again. */
  start(theme: Theme): () => void {
    const engine = new EngineClient((events) => this.hear(events));
    this.engine = engine;
    // What went wrong is told by an event.
    engine.ask({ kind: 'open', sheet: this.sheet, theme }).catch(() => {});
    return () => {
      engine.close();
      if (this.engine === engine) this.engine = null;
    };
  }

  /** Asks the engine; while there is none, nobody waits for the answer either. */
  ask<R extends Request>(request: R): Promise<AnswerOf<R['kind']>> {
    return this.engine ? this.engine.ask(request) : new Promise(() => {});
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly get = (): SessionState => this.state;

  private set(change: Partial<SessionState>): void {
    this.state = { ...this.state, ...change };
    if (this.hold === 'gathering') return;
    this.hold = 'no';
    for (const listener of this.listeners) listener();
  }

  /**
   * Lets the page rest until the engine answers, so that what was entered is painted in the frame that puts the editor away,
   * and no frame shows the cell as it was. Whatever else happens meanwhile ends it.
   */
  private holdForEngine(): void {
    this.hold = 'gathering';
    queueMicrotask(() => (this.hold = 'waiting'));
    setTimeout(() => this.hold === 'waiting' && this.set({}), LONGEST_HOLD_MS);
  }

  /** Takes in all that the engine told at once, and renders once. */
  private hear(events: readonly Event[]): void {
    this.set(Object.assign({}, ...events.map((event) => stateAfter(event, this.state))) as Partial<SessionState>);
    if (events.some(({ kind }) => kind === 'window-resolved')) this.readCell();
    if (events.some(({ kind }) => kind === 'rules-counted')) this.followRules();
  }

  /** Keeps the bench in step with the rule that lies on it, while nobody is changing it there: others may, and so may an undo. */
  private followRules(): void {
    const { bench, legend } = this.state;
    if (bench?.kept && isSameRule(bench.draft.rule, bench.kept.rule)) {
      const entry = legend.find(({ id }) => id === bench.draft.id);
      if (!entry) return this.leaveBench();
      if (!entry.isDraft && !isSameRule(entry.rule, bench.kept.rule)) {
        const kept = this.storedRule(entry);
        this.set({ bench: { ...bench, draft: kept, kept } });
      }
    }
    this.readProfile();
  }

  // The grid

  useTheme(theme: Theme): void {
    void this.ask({ kind: 'use-theme', theme });
  }

  lookAt(area: Area): void {
    void this.ask({ kind: 'look-at', area });
  }

  /** Keeps records out of this reader's view. The choice shows at once, so that the next one builds on it. */
  filterBy(filter: Filter | null): void {
    const { frame } = this.state;
    if (frame) this.set({ frame: { ...frame, filter } });
    void this.ask({ kind: 'filter', filter });
  }

  select(selection: Selection): void {
    this.set({ selection, pasted: null });
    if (this.state.spotlight !== null) this.spotlight(null);
    this.readCell();
  }

  private readCell(): void {
    const { selection } = this.state;
    const { column, position } = selection.anchor;
    void this.ask({ kind: 'select', selection }).then((cell) => {
      const { selection: now, editing } = this.state;
      if (now.anchor.column !== column || now.anchor.position !== position) return;
      // Whoever typed before the answer came learns only now which cell that is.
      const knows = cell && editing && !editing.cell && editing.column === column && editing.position === position;
      this.set({ cell, ...(knows ? { editing: { ...editing, cell: idsOf(cell) } } : {}) });
    });
  }

  /** Begins to edit the active cell: with what it holds, or with text that was typed over it. */
  beginEdit(place: Editing['place'], typed?: string): void {
    const { column, position } = this.state.selection.anchor;
    const { cell, selection } = this.state;
    const known = cell?.column === column && cell.position === position ? cell : null;
    const text = typed ?? known?.input;
    if (text !== undefined) return this.set({ editing: { column, position, text, place, cell: known ? idsOf(known) : undefined } });
    void this.ask({ kind: 'select', selection }).then((answer) => {
      // Whoever is quicker than the answer has begun to type over the cell.
      if (!this.state.editing && answer) this.set({ editing: { column, position, text: answer.input, place, cell: idsOf(answer) } });
    });
  }

  /** What is typed now; what was pointed at before stays as it is. */
  type(text: string, caret = text.length): void {
    if (this.state.editing) this.set({ editing: { ...this.state.editing, text, caret, pointed: undefined } });
  }

  /** What is typed now, with a reference in it that was pointed at on the grid. */
  point(editing: Editing): void {
    this.set({ editing, shown: editing.pointed?.selection ?? null });
  }

  /** Ends editing and enters what was typed. What the field does not allow is not entered: with `stays` it remains in the editor. */
  commit(stays = false): boolean {
    const { editing, frame, cell: known } = this.state;
    if (!editing) return true;
    const { column, position, cell, text } = editing;
    const field = frame?.fields[column];
    const isRecord = position >= (frame?.frozenRows ?? 0) && (known?.position !== position || known.role === 'record');
    if (field && isRecord && !isAllowed(field, text)) {
      this.set({ message: notOneOf(field, text), ...(stays ? {} : { editing: null }) });
      return false;
    }
    void this.ask({ kind: 'enter', column, position, cell, input: text });
    this.holdForEngine();
    this.set({ editing: null });
    return true;
  }

  cancelEdit(): void {
    this.set({ editing: null });
  }

  /** What could not be done is told, and what takes long is shown to be under way; whoever waits goes on all the same. */
  async tellingRefusals<T>(work: Promise<T>): Promise<T | undefined> {
    const slow = setTimeout(() => this.set({ isBusy: true }), SLOW_MS);
    try {
      return await work;
    } catch (error) {
      this.set({ message: error instanceof Error ? error.message : String(error) });
      return undefined;
    } finally {
      clearTimeout(slow);
      if (this.state.isBusy) this.set({ isBusy: false, progress: null });
    }
  }

  openPanel(panel: SessionState['panel']): void {
    this.set({ panel });
  }

  notePaste(pasted: SessionState['pasted']): void {
    this.set({ pasted });
  }

  tell(message: string): void {
    this.set({ message });
  }

  undo(): void {
    void this.tellingRefusals(this.ask({ kind: 'undo' }));
  }

  redo(): void {
    void this.tellingRefusals(this.ask({ kind: 'redo' }));
  }

  /** Ends what takes long: nothing of it stays. */
  stop(): void {
    void this.ask({ kind: 'stop' });
  }

  dismissMessage(): void {
    this.set({ message: null });
  }

  // Rules

  spotlight(rule: RuleId | null): void {
    this.set({ spotlight: rule });
    void this.ask({ kind: 'spotlight', rule });
  }

  /** Puts a new rule of a kind on the bench, over the selected fields, with thresholds taken from their values. It comes first, so that it is seen. */
  async newRule(kind: KindName): Promise<void> {
    const { frame, legend } = this.state;
    if (!frame) return;
    const { left, right } = selectedArea(this.state.selection);
    const fields = frame.fields.slice(left, right + 1).map((field) => field.id);
    const id = nanoid(10);
    const { profile } = await this.ask({ kind: 'ask-profile', rule: id, reads: { fields }, thresholds: [] });
    const rule: Rule = {
      id,
      name: '',
      on: true,
      settles: false,
      reads: { fields },
      when: KINDS[kind].defaults(profile),
      paints: 'cell',
      ...(KINDS[kind].outcomes === 'match' ? { look: { look: 'watch' } } : {}),
    };
    const draft = { id, key: keysAt(legend, 0, 1)[0]!, rule };
    this.spotlight(null);
    // The bench and the style shelf together would leave too little of the sheet.
    this.set({ bench: { draft, kept: null, namesItself: true }, profile: null, panel: null });
    this.changeDraft(draft.rule);
  }

  /** Puts a kept rule on the bench and lights its cells. */
  openRule(id: RuleId): void {
    const entry = this.state.legend.find((candidate) => candidate.id === id);
    if (!entry) return;
    const kept = this.storedRule(entry);
    const { frame } = this.state;
    this.set({
      bench: { draft: kept, kept, namesItself: frame !== null && kept.rule.name === ruleSentence(frame.fields, kept.rule) },
      profile: null,
      panel: null,
    });
    void this.ask({ kind: 'draft', rule: null });
    this.spotlight(id);
    this.readProfile();
    void this.showMatch(-1);
  }

  /** Selects the next cell below a position that the rule on the bench gives a look. */
  async showMatch(after = this.state.selection.anchor.position): Promise<void> {
    const rule = this.state.bench?.draft.id;
    if (rule === undefined) return;
    const cell = await this.ask({ kind: 'ask-match', rule, after });
    if (!cell) return;
    this.show(selectCell(cell));
  }

  show(selection: Selection): void {
    this.set({ selection, shown: selection });
    this.readCell();
  }

  /** Changes the rule on the bench; the sheet shows it at once, others see it when it is kept. */
  changeDraft(rule: Rule): void {
    const { bench, frame } = this.state;
    if (!bench || !frame) return;
    const named = bench.namesItself ? { ...rule, name: ruleSentence(frame.fields, rule).slice(0, 200) } : rule;
    this.set({ bench: { ...bench, draft: { ...bench.draft, rule: named } } });
    void this.sendDraft();
  }

  nameDraft(name: string): void {
    const { bench } = this.state;
    if (!bench) return;
    this.set({ bench: { ...bench, namesItself: name === '' } });
    this.changeDraft({ ...bench.draft.rule, name });
  }

  /** Only the latest draft is sent while the engine is at work, so that dragging never runs ahead of it. */
  private async sendDraft(): Promise<void> {
    if (this.draftSending !== 'no') {
      this.draftSending = 'again';
      return;
    }
    do {
      this.draftSending = 'yes';
      await this.ask({ kind: 'draft', rule: this.state.bench?.draft ?? null });
    } while ((this.draftSending as string) === 'again');
    this.draftSending = 'no';
  }

  private readProfile(): void {
    if (!this.state.bench) return;
    if (this.profileSending !== 'no') {
      this.profileSending = 'again';
      return;
    }
    this.profileSending = 'yes';
    const { rule } = this.state.bench.draft;
    void this.ask({
      kind: 'ask-profile',
      rule: rule.id,
      reads: rule.reads,
      thresholds: kindOf(rule.when)
        .thresholds(rule.when)
        .map(({ value }) => value),
    }).then((profile) => {
      const again = this.profileSending === 'again';
      this.profileSending = 'no';
      if (this.state.bench) this.set({ profile });
      if (again) this.readProfile();
    });
  }

  /** Keeps the rule on the bench, for everybody. */
  keepDraft(): void {
    const { bench } = this.state;
    if (!bench) return;
    this.putRules([bench.draft]);
    this.set({ bench: { ...bench, kept: bench.draft } });
    void this.ask({ kind: 'draft', rule: null });
  }

  /** Takes the rule off the bench; what was not kept is as it was. */
  leaveBench(): void {
    this.set({ bench: null, profile: null });
    this.spotlight(null);
    void this.ask({ kind: 'draft', rule: null });
  }

  switchRule(entry: LegendEntry): void {
    this.putRules([{ ...this.storedRule(entry), rule: { ...entry.rule, on: !entry.rule.on } }]);
  }

  duplicateRule(entry: LegendEntry): void {
    const id = nanoid(10);
    const place = this.state.legend.findIndex(({ id: candidate }) => candidate === entry.id) + 1;
    this.putRules([
      { id, key: keysAt(this.state.legend, place, 1)[0]!, rule: { ...entry.rule, id, name: `${entry.rule.name} (copy)`.slice(0, 200) } },
    ]);
  }

  /** Moves a rule to a place in the order of precedence, counted from 0. */
  moveRule(id: RuleId, to: number): void {
    const entry = this.state.legend.find((candidate) => candidate.id === id);
    const rest = this.state.legend.filter((candidate) => candidate.id !== id);
    if (!entry || to < 0 || to > rest.length) return;
    const key = keysAt(rest, to, 1)[0]!;
    if (this.state.bench?.draft.id === id) this.set({ bench: { ...this.state.bench, draft: { ...this.state.bench.draft, key } } });
    if (!entry.isDraft) this.putRules([{ ...this.storedRule(entry), key }]);
    else void this.sendDraft();
  }

  removeRule(id: RuleId): void {
    if (this.state.bench?.draft.id === id) this.leaveBench();
    void this.ask({ kind: 'change', operations: [{ kind: 'remove-rules', rules: [id] }] });
  }

  private putRules(rules: readonly StoredRule[]): void {
    void this.ask({ kind: 'change', operations: [{ kind: 'put-rules', rules }] });
  }

  private storedRule({ id, key, rule }: LegendEntry): StoredRule {
    return { id, key, rule };
  }
}

const idsOf = ({ row, field }: CellIds): CellIds => ({ row, field });

const notOneOf = ({ label, allowed = [] }: ShownField, text: string): string =>
  `“${text}” is not one of the values of ${label}, so it was not entered: ${allowed.slice(0, 8).join(', ')}${allowed.length > 8 ? ' and others' : ''}. The list is in the menu of fields.`;
