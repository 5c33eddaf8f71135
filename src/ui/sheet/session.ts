import type { Texts } from '../../texts/texts';
import type { CellIds } from '../../core/sheet/ids';
import type { Theme } from '../../core/looks/first-family';
import type { SheetId } from '../../core/sheet/ids';
import type { AnswerOf, Event, Request } from '../../protocol/engine-messages';
import type { Area, Filter, Selection, LostCell, ShownField } from '../../protocol/sheet-view';
import { EngineClient } from './engine/engine-client';
import { isFormulaInput } from '../../core/values/is-formula-input';
import { heightOf } from '../grid/painter/height-of';
import { isAllowed } from '../../core/sheet/allowed-values';
import { Pointing } from '../formula/pointing';
import { ExampleActions } from './example-actions';
import { RuleActions } from './rule-actions';
import type { SessionPort } from './session-port';
import { SheetActions } from './sheet-actions';
import { idsOf, START, stateAfter, type Editing, type SessionState } from './session-state';
import { LatestOnly } from './engine/latest-only';
import { openRequest, type SessionOf } from './engine/open-request';
import { ToldSelection } from './engine/told-selection';

/**
 * How long the page may wait for the engine before it closes the editor: longer than an answer takes, shorter than is
 * felt.
 */
const MAX_HOLD_MS = 24;
/** How long counts rest while a threshold is dragged. */
const COUNTS_REST_MS = 120;
/** Work that takes longer than this is shown to be under way. */
const BUSY_AFTER_MS = 300;

/** One person's work on one open sheet: what the screen shows, and everything that can be done to it. */
export class Session implements SessionPort {
  private state = START;
  private readonly listeners = new Set<() => void>();
  /**
   * While not `no`, listeners hear of nothing: `gathering` to the end of the event that began it, then `waiting` for
   * the engine.
   */
  private hold: 'no' | 'gathering' | 'waiting' = 'no';
  private holding: ReturnType<typeof setTimeout> | undefined;
  private engine: EngineClient | null = null;
  private readonly told = new ToldSelection();
  /** The counts that came last while a threshold is dragged. */
  private counts: Event | null = null;
  private readonly counting = new LatestOnly(() => this.showCounts());
  /** Done once the sheet is open, or cannot be opened. */
  private opening: Promise<unknown> = Promise.resolve();

  /** Actions on cells, rows and fields. */
  readonly actions = new SheetActions(this);
  /** Actions on rules. */
  readonly rules = new RuleActions(this);
  /** Actions on a rule that is made from examples. */
  readonly examples = new ExampleActions(this, this.rules);
  /** How references are put into the formula that is being typed. */
  readonly pointing = new Pointing(this);

  constructor(
    readonly sheet: SheetId,
    readonly t: Texts<'sheet'>,
    private readonly of: SessionOf = {},
  ) {}

  /** True for owners and editors. */
  get isMaker(): boolean {
    return this.of.reads === undefined;
  }

  /** Starts the engine and opens the sheet. Returns how to end it; it can be started again. */
  start(theme: Theme): () => void {
    const engine = new EngineClient({ ...openRequest(this.sheet, this.of), theme }, (events) =>
      this.onEngineEvents(events),
    );
    this.engine = engine;
    this.set({ theme });
    // A failure arrives as an event.
    this.opening = engine.opening.then(() => this.sendSelection()).catch(() => {});
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

  /** Applies a change of the state and renders. */
  set(change: Partial<SessionState>): void {
    this.state = { ...this.state, ...change };
    if (this.hold === 'gathering') return;
    this.hold = 'no';
    for (const listener of this.listeners) listener();
  }

  /**
   * Renders nothing until the engine answers, so that the new content is painted in the frame that closes the editor,
   * and no frame shows the old one. Any other event ends the wait.
   */
  holdForEngine(): void {
    this.hold = 'gathering';
    queueMicrotask(() => (this.hold = 'waiting'));
    clearTimeout(this.holding);
    this.holding = setTimeout(() => this.hold === 'waiting' && this.set({}), MAX_HOLD_MS);
  }

  /** Applies all events of the engine that came at once, and renders once. */
  private onEngineEvents(arrived: readonly Event[]): void {
    const events = arrived.filter((event) => event.kind !== 'rules-counted' || !this.isForLater(event));
    let change: Partial<SessionState> = {};
    for (const event of events) {
      const after = stateAfter(event, { ...this.state, ...change });
      if (event.kind === 'selection-moved' && after.selection) this.told.moved();
      change = { ...change, ...after };
    }
    this.set(change);
    for (const event of events) if (event.kind === 'change-refused' && event.rule) this.rules.takeBack(event.rule);
    if (events.some(({ kind }) => kind === 'rules-counted')) this.rules.follow();
  }

  /**
   * Whether counts wait, as they do while a threshold is dragged: the cells follow it frame by frame, the legend a few
   * times a second. Any that come otherwise are newer than those that wait.
   */
  private isForLater(counts: Event): boolean {
    const waits = this.state.bench?.isDragged ?? false;
    this.counts = waits ? counts : null;
    if (waits) void this.counting.run();
    return waits;
  }

  private async showCounts(): Promise<void> {
    const { counts } = this;
    this.counts = null;
    if (counts) {
      this.set(stateAfter(counts, this.state));
      this.rules.follow();
    }
    await new Promise((resolve) => setTimeout(resolve, COUNTS_REST_MS));
  }

  // The grid

  useTheme(theme: Theme): void {
    if (theme !== this.state.theme) this.set({ theme });
    void this.ask({ kind: 'use-theme', theme });
  }

  setViewport(area: Area): void {
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
    if (this.state.spotlight !== null) this.rules.spotlight(null);
    void this.sendSelection();
  }

  show(selection: Selection): void {
    this.set({ selection, shown: selection });
    void this.sendSelection();
  }

  /** Selects a cell by what it is, once the sheet is open; says so where it is not there any more. */
  async goTo(cell: CellIds): Promise<void> {
    await this.opening;
    const place = await this.ask({ kind: 'ask-place', cell });
    if (place) this.show({ anchor: place, focus: place });
    else this.showMessage(this.t('cellLinkNoLonger'));
  }

  /** Done once the active cell of the selection is known. */
  private sendSelection(): Promise<void> {
    const { selection, shownWindow } = this.state;
    return this.told.tell(shownWindow, (seen) => this.ask({ kind: 'select', selection, seen }));
  }

  /** Begins to edit the active cell: with what it holds, or with text that was typed over it. */
  beginEdit(place: Editing['place'], typed?: string): void {
    const { selection, cell } = this.state;
    const { column, position } = selection.anchor;
    const known = cell?.column === column && cell.position === position ? cell : null;
    if (known?.lock) return this.showMessage(known.lock);
    const text = typed ?? known?.input;
    if (text !== undefined)
      return this.set({ editing: { column, position, text, place, cell: known ? idsOf(known) : undefined } });
    // Typing may begin over the cell before it is known.
    void this.sendSelection().then(() => {
      if (!this.state.editing && this.state.selection === selection && this.state.cell) this.beginEdit(place);
    });
  }

  /** Sets the typed text; what was pointed at before stays as it is. */
  type(text: string, caret = text.length): void {
    if (this.state.editing) this.set({ editing: { ...this.state.editing, text, caret, pointed: undefined } });
  }

  /** Sets the typed text, with a reference in it that was pointed at on the grid. */
  point(editing: Editing): void {
    this.set({ editing, shown: editing.pointed?.selection ?? null });
  }

  /**
   * Ends editing and enters the text. Text that the field does not allow is not entered: with `stays` it remains in the
   * editor.
   */
  commit(stays = false): boolean {
    const { editing, frame, cell: known } = this.state;
    if (!editing) return true;
    const { column, position, cell, text } = editing;
    const field = frame?.fields[column];
    const isRecord = position >= (frame?.frozenRows ?? 0) && (known?.position !== position || known.role === 'record');
    if (field && isRecord && !isAllowed(field, text)) {
      this.set({ message: notOneOf(field, text, this.t), ...(stays ? {} : { editing: null }) });
      return false;
    }
    const heightPx =
      this.isMaker && known?.position === position && known.column === column ? this.heightFor(text) : null;
    void this.ask({
      kind: 'enter',
      cell: cell ?? { column, position },
      input: text,
      seen: this.told.seenIn(this.state.shownWindow),
      ...(heightPx === null ? {} : { heightPx }),
    });
    this.holdForEngine();
    this.set({ editing: null });
    return true;
  }

  /** The height that a text needs in the active cell; null where one line is enough. */
  private heightFor(text: string): number | null {
    const { cell, frame } = this.state;
    const field = cell && frame?.fields[cell.column];
    if (!field || cell.style.wrap !== true || isFormulaInput(text)) return null;
    const { sizePx = 13, bold = cell.role === 'header' || cell.role === 'total' } = cell.style;
    return heightOf({ text, widthPx: field.widthPx, sizePx, isBold: bold });
  }

  cancelEdit(): void {
    this.set({ editing: null });
  }

  /** Shows why some work failed, and shows that it is busy where it takes long; gives undefined where it failed. */
  async withErrorMessage<T>(work: Promise<T>): Promise<T | undefined> {
    const slow = setTimeout(() => this.set({ isBusy: true }), BUSY_AFTER_MS);
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

  /** Opens a dialog about some rules; null closes it. */
  openDialog(asked: SessionState['asked']): void {
    this.set({ asked });
  }

  /** Shows the legend as those see it who only read, or as it is worked on. */
  readLegend(isReading: boolean): void {
    if (isReading) this.rules.putAside();
    this.set({ isReading, chosen: [] });
  }

  openPanel(panel: SessionState['panel']): void {
    this.set({ panel, ahead: '' });
  }

  /** What is typed just after a panel with a line was asked for belongs to it; false where no such panel is open. */
  typeAhead(text: string | null): boolean {
    const { panel, ahead } = this.state;
    if (panel !== 'commands' && panel !== 'new-rule') return false;
    if (text !== null) this.set({ ahead: ahead + text });
    return true;
  }

  /** What was typed ahead is in the line now. */
  takeAhead(): void {
    if (this.state.ahead !== '') this.set({ ahead: '' });
  }

  /** Opens the help at a topic, or closes it. */
  openHelp(help: string | null): void {
    this.set({ help });
  }

  setPasteHint(pasted: SessionState['pasted']): void {
    this.set({ pasted });
  }

  showMessage(message: string): void {
    this.set({ message });
  }

  undo(): void {
    void this.withErrorMessage(this.ask({ kind: 'undo' }));
  }

  redo(): void {
    void this.withErrorMessage(this.ask({ kind: 'redo' }));
  }

  /** Ends what takes long: nothing of it stays. */
  stop(): void {
    void this.ask({ kind: 'stop' });
  }

  /** Puts an entry back that somebody wrote over, or leaves what they wrote. */
  settleLost(entry: LostCell, how: 'mine' | 'theirs'): void {
    this.set({ lost: this.state.lost.filter((other) => other !== entry) });
    if (how === 'mine') void this.ask({ kind: 'enter', cell: entry.cell, input: entry.mine });
  }

  dismissMessage(): void {
    this.set({ message: null });
  }
}

const notOneOf = ({ label, allowed = [] }: ShownField, text: string, t: Texts<'sheet'>): string =>
  t('textNotOneValues', { text, label, values: allowed.slice(0, 8).join(', '), isCut: String(allowed.length > 8) });
