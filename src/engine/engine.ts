import { nanoid } from 'nanoid';
import { entryOf } from '../core/values/entry-of';
import { sheetUrl } from '../protocol/sheet-url';
import type { CellPosition } from '../core/sheet/cell-position';
import { sizeOf } from '../core/sheet/operations/registry';
import { columnLetters } from '../core/sheet/address';
import { holdRanges } from '../core/formula/resolve/hold-ranges';
import { withFollowers } from '../core/rules/move/follow-layout';
import { profileRule } from '../core/rules/explain/profile-rule';
import { inRow, keepReferences } from '../core/formula/resolve/keep-references';
import { tableWidth, transposed, type PastedCell } from '../core/edit/cells';
import { findCells, type FindQuery } from '../core/edit/find';
import { editWords, operationsOf, type Edit } from '../core/edit/registry';
import { putRuleSetToWork } from '../core/rules/move/put-rule-set-to-work';
import type { Operation } from '../core/sheet/change';
import type { Theme } from '../core/looks/first-family';
import type { RowId, RuleId, SheetId } from '../core/sheet/ids';
import { fillingOf } from '../core/sharing/filling';
import type { Reader } from '../core/sharing/role';
import type { SheetPast } from '../protocol/recorded-change';
import type { GivenLook } from '../protocol/painted-sheet';
import { unpackSheet } from '../protocol/packed-sheet';
import type {
  AnswerOf,
  Area,
  CopiedText,
  EngineQuestions,
  Event,
  Filter,
  RequestName,
  RequestOf,
} from '../protocol/engine-messages';
import { Connection, type News } from './link/connection';
import { copyArea, pastedCells, readPasted, spread, type Copied } from './requests/clipboard';
import { adviceInTurns } from './requests/advice-in-turns';
import { questions } from './requests/questions';
import type { Handlers } from '../protocol/channel';
import { cellAnswer } from './requests/cell-answer';
import { carryElsewhere } from './requests/carry-elsewhere';
import { differenceFrom } from './requests/difference-from';
import type { EntryLock } from './replica/entry-lock';
import { exportFile } from './requests/export-file';
import { fetchPainted, fetchSheet } from './link/fetch-sheet';
import { frameOf, frozenRows } from './view/frame-of';
import { legendOf } from './view/legend-of';
import { judgeEntry } from './requests/judge-entry';
import { loadLater } from './load-later';
import { HeldSelection } from './replica/held-selection';
import { openPainted } from './replica/open-painted';
import { PersonalRules } from './link/personal-rules';
import { PastReader } from './link/past-reader';
import { ReadCache } from './replica/read-cache';
import { HeldNewer } from './requests/refresh-file';
import { Replica } from './replica/replica';
import { paintedBy, rowHeights } from './view/row-heights';
import { Turns } from './replica/turns';
import { UndoStack, type UndoStep } from './replica/undo-stack';
import { windowOf, type Spotlight } from './view/window-of';
import { withQuery } from '../protocol/with-query';

/** Matches that are sent at once. */
const MAX_FOUND = 10_000;

/** Changes of more cells and rows are made in parts, and can be stopped. */
const MAX_ITEMS_AT_ONCE = 5000;

/** Requests that do not wait for those before them, or that take turns of their own. */
const AT_ONCE: ReadonlySet<RequestName> = new Set([
  'open',
  'stop',
  'ask-advice',
  'read-newer',
  'judge',
  'ask-difference',
  'carry-rules',
]);

/**
 * Hosts the core for one page: keeps the sheet, follows the server, answers the page, and reports what changed. One
 * file, since every request works on the same private state.
 */
export class Engine {
  private replica: Replica | null = null;
  private connection: Connection | null = null;
  private past: PastReader | null = null;
  /** Rules that only this reader sees, where they can have some. */
  private personal: PersonalRules | null = null;
  private readonly undo = new UndoStack();
  private name = '';
  private id: SheetId = '';
  private theme: Theme = 'light';
  private area: Area = { left: 0, top: 0, right: -1, bottom: -1 };
  private spotlight: Spotlight | null = null;
  /** The rule whose formula is tried beside the rows. */
  private tried: RuleId | null = null;
  /** Set for readers without rules: the server gives looks. */
  private reads: { readonly as?: Reader['role'] } | null = null;
  private lock: EntryLock | null = null;
  /** The presence key; null for an anonymous reader. */
  private who: string | null = null;
  /** Rows that this reader filters or folds away. */
  private readonly outOfView: { filter: Filter | null; readonly folded: Set<RowId> } = {
    filter: null,
    folded: new Set(),
  };
  private copied: Copied | null = null;
  private readonly newer = new HeldNewer();
  private readonly lastRead = new ReadCache();
  private readonly selected = new HeldSelection();
  private readonly news = new Set<News>();
  private readonly turns = new Turns((share) => this.tell({ kind: 'work-progressed', share }));
  /** The last frame that was sent: most edits leave it as it is. */
  private lastFrame = '';
  private lastOthers = '[]';

  constructor(private readonly tellAll: (events: readonly Event[], transfer?: Transferable[]) => void) {}

  private tell(event: Event): void {
    this.tellAll([event]);
  }

  /** One handler a request: the compiler holds each to the answer that its map promises. */
  private readonly handlers: Handlers<EngineQuestions> = {
    ...questions(() => this.opened),
    open: ({ sheet, theme, at, reads, who }) => {
      this.theme = theme;
      this.reads = reads ?? null;
      this.who = who ?? null;
      return this.open(sheet, at);
    },
    stop: () => this.turns.stop(),
    'look-at': ({ area }) => {
      this.area = area;
      return this.invalidate('window');
    },
    'use-theme': ({ theme }) => this.useTheme(theme),
    change: ({ operations }) =>
      this.change(operations, operations.some(({ kind }) => kind.includes('rules')) ? 'rules' : 'change'),
    enter: (asked) => this.enter(asked),
    edit: ({ edit, also }) => this.edit(edit, also),
    copy: ({ area }) => this.copy(area),
    paste: (asked) => this.paste(asked),
    find: ({ wanted }) => this.find(wanted),
    filter: ({ filter }) => {
      this.outOfView.filter = filter;
      return this.invalidate('frame', 'window');
    },
    fold: ({ position, folded }) => this.fold(position, folded),
    undo: () => this.step('undo'),
    redo: () => this.step('redo'),
    draft: ({ rule }) => {
      this.opened.setDraft(rule);
      return this.invalidate('window', 'legend');
    },
    spotlight: ({ rule, part }) => {
      this.spotlight = rule === null ? null : { rule, part };
      return this.invalidate('window');
    },
    select: ({ selection }) => {
      this.selected.hold(this.sheet, selection);
      this.connection?.select(selection);
      // The preview column is about the selected field.
      if (this.tried !== null) this.invalidate('window');
      return cellAnswer(this.opened, selection.anchor, this.lock);
    },
    trial: ({ rule }) => {
      this.tried = rule;
      return this.invalidate('window');
    },
    'own-rules': async ({ rules, whose }) => this.change((await this.personal?.own(rules, whose)) ?? [], 'rules'),
    'use-rule-set': ({ set }) => {
      const used = putRuleSetToWork(this.sheet, set, () => nanoid(10));
      if ('missing' in used) throw new Error(noField(set.name, used.missing));
      return this.change(used.operations, `rule set ${set.name}`);
    },
    'carry-rules': ({ rules, sheet }) => {
      const chosen = this.opened.rulesAtWork().filter(({ id }) => rules.includes(id));
      return carryElsewhere(this.sheet, chosen, sheet);
    },
    'bring-rules': async ({ text }) => {
      const { bringRules } = await loadLater(() => import('./requests/bring-rules'));
      const { operations, told } = bringRules(this.sheet, text);
      await this.change(operations, 'rules from a file');
      return told;
    },
    'read-newer': ({ file }) => this.newer.read(file, this.sheet),
    refresh: (asked) => this.refresh(asked),
    export: (asked) => exportFile(this.opened, this.name, asked),
    judge: (asked) => this.judge(asked),
    'ask-advice': () => adviceInTurns(() => this.opened, this.turns),
    'ask-profile': (asked) => profileRule(this.opened.evaluation, asked, this.lastRead.read(this.sheet, asked.reads)),
    'ask-difference': ({ to }) => differenceFrom(this.opened, this.id, { theme: this.theme, to }),
  };

  /** Answers a request in its turn. Fails in words for the person who asked. */
  async answer<K extends RequestName>(request: RequestOf<K>): Promise<AnswerOf<K>> {
    // The name pairs each request with its handler.
    const handle = entryOf<(asked: RequestOf<K>) => AnswerOf<K> | Promise<AnswerOf<K>>>(this.handlers, request.kind);
    return AT_ONCE.has(request.kind) ? handle(request) : this.turns.take(() => handle(request));
  }

  private async refresh({ how, do: isMeant }: RequestOf<'refresh'>) {
    const { operations, preview } = this.newer.plan(this.sheet, how);
    if (isMeant && operations.length) await this.change(operations, 'refresh from a file');
    return preview;
  }

  /** Evaluates time-dependent formulas and rules; called once a minute. */
  tick(nowMs: number): void {
    // A sheet as it was has no clock.
    if (!this.connection) return;
    void this.turns.take(() => {
      this.replica?.tick(nowMs);
      this.lastRead.forget();
      this.invalidate('window', 'legend');
    });
  }

  /** Leaves the sheet: nothing is heard of it or sent any more. */
  close(): void {
    this.connection?.close();
    this.connection = null;
  }

  private get opened(): Replica {
    if (!this.replica) throw new Error('the sheet is not open yet');
    return this.replica;
  }

  private get sheet() {
    return this.opened.sheet;
  }

  private useTheme(theme: Theme): null {
    const isNew = theme !== this.theme;
    this.theme = theme;
    // Given looks are made for one theme.
    if (this.reads && isNew && this.id !== '') void this.open(this.id).catch(() => {});
    this.replica?.useTheme(theme);
    return this.invalidate('window');
  }

  private async open(id: SheetId, at?: number): Promise<null> {
    const { reads, theme } = this;
    const bytes = await (reads ? fetchPainted(id, { theme, as: reads.as }) : fetchSheet(id, at)).catch(
      (error: Error) => {
        this.tell({ kind: 'sheet-failed', message: error.message });
        throw error;
      },
    );
    return this.turns.take(() => (reads ? this.attachReaderView(id, bytes) : this.attachSheet(id, bytes)));
  }

  /** Works on a sheet as it came from the server from now on, with the changes that were on their way. */
  private attachSheet(id: SheetId, bytes: ArrayBuffer): null {
    const { sheet, head } = unpackSheet(bytes);
    const replica = new Replica(sheet, head.sequence, { theme: this.theme, nowMs: head.asOf ?? Date.now() });
    this.past = new PastReader(id, (read) => void this.turns.take(() => this.usePast(replica, read)));
    const from = head.asOf === undefined ? () => sheetUrl(id, `changes?after=${replica.sequence}`) : null;
    if (from !== null && this.who !== null)
      this.personal = new PersonalRules(
        id,
        replica,
        (work) => void this.turns.take(work).then(() => this.invalidate('window', 'legend')),
      );
    return this.attach(replica, { id, name: head.name, from });
  }

  /** The same for a sheet with given looks. */
  private attachReaderView(id: SheetId, bytes: ArrayBuffer): null {
    const { name, replica, lock, head } = openPainted(bytes, this.theme);
    const url = sheetUrl(id, 'painted/changes');
    const view = { theme: this.theme, as: this.reads?.as, view: head.view };
    this.lock = lock;
    this.tell({ kind: 'legend-told', meanings: head.legend });
    const from = () => withQuery(url, { ...view, revision: replica.revision });
    return this.attach(replica, { id, name, from });
  }

  /** `from` gives the address of the stream to follow; null where the sheet stands still. */
  private attach(
    replica: Replica,
    { id, name, from }: { readonly id: SheetId; readonly name: string; readonly from: (() => string) | null },
  ): null {
    const waiting = this.replica?.waiting ?? [];
    this.replica = replica;
    this.id = id;
    this.name = name;
    if (from !== null) {
      this.connection ??= new Connection(id, this.who, {
        take: (work) => void this.turns.take(work),
        tell: (event) => this.tell(event),
        note: (...news) => this.invalidate(...news),
        reopen: () => this.open(id),
        forget: (change) => this.undo.forget(change),
      });
      this.connection.use(replica, from, waiting);
    }
    return this.invalidate('frame', 'window', 'legend');
  }

  private usePast(replica: Replica, past: SheetPast): void {
    replica.usePast(past);
    this.invalidate('window', 'legend', 'selection');
  }

  private async change(asked: readonly Operation[], says: string): Promise<null> {
    const operations = (await this.personal?.take(asked)) ?? asked;
    if (operations.length) await this.apply(operations, says, (step) => this.undo.made(step));
    return null;
  }

  private async step(direction: 'undo' | 'redo'): Promise<null> {
    const step = this.undo.top(direction);
    if (step) await this.apply(step.inverse, step.says, (made) => this.undo.stepped(direction, made));
    return null;
  }

  /**
   * Applies operations here at once, or in parts where they are many, and sends them. `done` hears what takes them
   * back.
   */
  private async apply(asked: readonly Operation[], says: string, done: (step: UndoStep) => void): Promise<void> {
    const { sheet } = this;
    const locked = this.lock?.refusalOf(asked) ?? null;
    if (locked !== null) return this.tell({ kind: 'change-refused', message: locked });
    const held = holdRanges(sheet, asked);
    const operations = [
      ...(held.length ? [{ kind: 'set-cells' as const, cells: held }] : []),
      ...withFollowers(sheet, asked),
    ];
    const change = { id: nanoid(), operations };
    const inverse =
      sizeOf(operations) > MAX_ITEMS_AT_ONCE
        ? await this.opened.applyInParts(change, this.turns.rest)
        : this.opened.apply(change);
    this.selected.holdAnew(sheet);
    this.connection?.send(change);
    done({ changeId: change.id, inverse, says });
    this.invalidate('frame', 'window', 'legend', 'undo');
  }

  private async enter({ column, position, cell, input }: RequestOf<'enter'>): Promise<null> {
    const { sheet } = this;
    const slot = cell ? sheet.findSlot(cell.row) : sheet.order[position];
    const at = cell ? sheet.findColumn(cell.field) : column;
    const field = at === undefined ? undefined : sheet.fields[at];
    if (slot === undefined || at === undefined || !field) {
      if (cell && input !== '') this.tell({ kind: 'change-refused', message: goneWhileTyping(input) });
      return null;
    }
    const kept = keepReferences(input, sheet, inRow(sheet, slot));
    if (sheet.column(at).inputAt(slot) === kept) return null;
    const says = `entry in ${columnLetters(at)}${sheet.positionOf(slot) + 1}`;
    return this.change(
      [{ kind: 'set-cells', cells: [{ row: sheet.rowId(slot), field: field.id, input: kept }] }],
      says,
    );
  }

  private edit(edit: Edit, also: readonly Edit[] = []): Promise<null> {
    const tools = {
      newId: () => nanoid(10),
      paintedBy: (rule: RuleId) => paintedBy(this.opened, rule) ?? (() => false),
      rules: () => this.opened.rulesAtWork(),
    };
    return this.change(
      [edit, ...also].flatMap((one) => operationsOf(this.sheet, one, tools)),
      editWords(edit),
    );
  }

  private async judge({ cell: { row, field }, input }: RequestOf<'judge'>): Promise<GivenLook | null> {
    const isTold = this.lock !== null && fillingOf(this.sheet.parts.values()).outcomes === 'typing';
    return isTold ? judgeEntry(this.id, { theme: this.theme, as: this.reads?.as }, { row, field, input }) : null;
  }

  private fold(position: number, folded: boolean): null {
    const slot = this.sheet.order[position];
    if (slot === undefined) return null;
    if (folded) this.outOfView.folded.add(this.sheet.rowId(slot));
    else this.outOfView.folded.delete(this.sheet.rowId(slot));
    return this.invalidate('frame', 'window');
  }

  private find(wanted: FindQuery): CellPosition[] {
    const { painted } = wanted;
    const running = this.opened.evaluation.activeRules.find(({ rule }) => rule.id === painted);
    const shows = painted === undefined ? undefined : (this.opened.shownBy(painted) ?? (() => false));
    const isPainted =
      shows &&
      ((column: number, slot: number): boolean => (running?.painted.has(column) ?? true) && shows(column, slot));
    return findCells(this.sheet, wanted, isPainted).slice(0, MAX_FOUND);
  }

  private copy(area: Area): CopiedText {
    const { copied, text } = copyArea(this.opened, area, nanoid(10));
    this.copied = copied;
    return text;
  }

  /**
   * Pastes what was copied here, with formulas and styles, or a table of texts from elsewhere. One cell fills the whole
   * area.
   */
  private async paste({ area, token, table, how }: RequestOf<'paste'>): Promise<Area> {
    const at = { column: area.left, position: area.top };
    const own = token !== null && this.copied?.token === token ? pastedCells(this.copied, at, how) : null;
    const read = own ? [] : readPasted(table).map((row) => row.map((input): PastedCell => ({ input })));
    const cells = own ?? (how === 'transposed' ? transposed(read) : read);
    const single = cells.length === 1 && cells[0]?.length === 1 ? cells[0][0] : undefined;
    const rows = single ? spread(single, area) : cells;
    await this.edit({ do: 'paste-cells', ...at, rows });
    const width = Math.max(1, tableWidth(rows));
    return {
      left: area.left,
      top: area.top,
      right: area.left + width - 1,
      bottom: area.top + Math.max(1, rows.length) - 1,
    };
  }

  private invalidate(...news: readonly News[]): null {
    // Whatever changes a cell also invalidates the frame.
    if (news.includes('frame')) this.lastRead.forget();
    const first = this.news.size === 0;
    for (const item of news) this.news.add(item);
    // All that one message or one batch of changes brings is sent once, as soon as it is in.
    if (first) queueMicrotask(() => this.flushEvents());
    return null;
  }

  private flushEvents(): void {
    const news = new Set(this.news);
    this.news.clear();
    if (!this.replica) return;
    const events: Event[] = [];
    const buffers: Transferable[] = [];
    const frame = news.has('frame') ? frameOf(this.replica, this.name, this.outOfView) : undefined;
    if (frame && JSON.stringify(frame) !== this.lastFrame) {
      this.lastFrame = JSON.stringify(frame);
      events.push({ kind: 'frame-changed', frame });
    }
    const moved = news.has('selection') ? this.selected.moved(this.sheet) : null;
    if (moved) events.push({ kind: 'selection-moved', ...moved });
    if (news.has('window')) {
      const { spotlight, lock } = this;
      const trial = { rule: this.tried, column: this.selected.column };
      const heights = rowHeights(this.replica, this.outOfView);
      const window = windowOf(this.replica, this.area, { spotlight, heights, trial, lock });
      const frozen = windowOf(
        this.replica,
        { ...this.area, top: 0, bottom: frozenRows(this.sheet) - 1 },
        { spotlight, heights, trial, lock },
      );
      for (const part of [window, frozen])
        buffers.push(
          part.looks.buffer,
          part.bars.buffer,
          part.aligns.buffer,
          part.spotlit.buffer,
          part.open.buffer,
          part.banded.buffer,
        );
      events.push({ kind: 'window-resolved', window, frozen });
    }
    if (news.has('legend')) this.past?.follow(this.replica);
    if (news.has('legend')) events.push({ kind: 'rules-counted', legend: legendOf(this.replica) });
    if (news.has('undo')) events.push({ kind: 'undo-changed', ...this.undo.next });
    if (news.has('link') && this.connection) events.push(this.connection.standing);
    // Where others are moves with the rows and fields.
    const people = news.has('others') || news.has('frame') ? this.connection?.others(this.sheet) : undefined;
    if (people && JSON.stringify(people) !== this.lastOthers) {
      this.lastOthers = JSON.stringify(people);
      events.push({ kind: 'others-told', people });
    }
    this.tellAll(events, buffers);
  }
}

const noField = (set: string, labels: readonly string[]): string =>
  `“${set}” was not used: there is no field called ${labels.map((label) => `“${label}”`).join(' or ')} here. Give a field that name, then try again.`;

const goneWhileTyping = (input: string): string =>
  `Somebody removed the record or field while you typed into it. What you typed was: ${input.slice(0, 500)}`;
