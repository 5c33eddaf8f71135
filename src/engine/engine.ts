import { nanoid } from 'nanoid';
import { messageOf } from '../core/values/error-message';
import { entryOf } from '../core/values/entry-of';
import { sizeOf } from '../core/sheet/operations/registry';
import { columnLetters } from '../core/sheet/address';
import { typedReader } from '../core/values/decimal-comma';
import { holdRanges } from '../core/formula/resolve/hold-ranges';
import { withFollowers } from '../core/rules/move/follow-layout';
import { profileRule, type RuleProfile } from '../core/rules/explain/profile-rule';
import { inRow, keepReferences } from '../core/formula/resolve/keep-references';
import { editWords, operationsOf, type Edit } from '../core/edit/registry';
import { putRuleSetToWork } from '../core/rules/move/put-rule-set-to-work';
import type { Operation } from '../core/sheet/change';
import type { Theme } from '../core/looks/first-family';
import type { CellPosition } from '../core/sheet/cell-position';
import type { RuleId, SheetId } from '../core/sheet/ids';
import { fillingOf } from '../core/sharing/filling';
import type { Reader } from '../core/sharing/role';
import type { GivenLook } from '../protocol/packed/painted-sheet';
import type { AnswerOf, CopiedText, EngineQuestions, Event, RequestName, RequestOf } from '../protocol/engine-messages';
import type { WindowAsked } from '../protocol/linked-table';
import type { Area } from '../protocol/sheet-view';
import { arrivedSheet, arrivedView, type ArrivedSheet } from './arrived-sheet';
import { Connection } from './link/connection';
import type { News } from './news';
import type { OpenedSheet, Shown } from './opened-sheet';
import { PageEvents } from './page-events';
import { cellsToPaste, copyArea, type Copied } from './requests/clipboard';
import { adviceInTurns } from './requests/advice-in-turns';
import { PastOfRules } from './requests/past-of-rule';
import { questions } from './requests/questions';
import type { Handlers } from '../protocol/channel';
import { carryElsewhere } from './requests/carry-elsewhere';
import { differenceFrom } from './requests/difference-from';
import { exportFile } from './requests/export-file';
import { fetchPainted, fetchSheet } from './link/fetch-sheet';
import { judgeEntry } from './requests/judge-entry';
import { loadLater } from './load-later';
import { HeldSelection } from './replica/held-selection';
import { SeenWindows } from './replica/seen-windows';
import { ReadCache } from './replica/read-cache';
import { HeldNewer } from './requests/refresh-file';
import type { Replica } from './replica/replica';
import { nextMatch } from './requests/next-match';
import { frozenRows } from './view/frame-of';
import { paintedBy } from './view/row-heights';
import { Turns } from './replica/turns';
import { UndoStack, type UndoStep } from './replica/undo-stack';

/** Changes of more cells and rows are made in parts, and can be stopped. */
const MAX_ITEMS_AT_ONCE = 5000;

/** Requests that do not wait for those before them, or that take turns of their own. */
const AT_ONCE: ReadonlySet<RequestName> = new Set([
  'open',
  'show-rows',
  'find-row',
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
  private current: OpenedSheet | null = null;
  private readonly shown: Shown = {
    theme: 'light',
    area: { left: 0, top: 0, right: -1, bottom: -1 },
    spotlight: null,
    tried: null,
    filter: null,
    folded: new Set(),
  };
  /**
   * Who reads: `view` is set for readers without rules, to whom the server gives looks; `who` is the presence key, null
   * for an anonymous reader.
   */
  private reader: { readonly view: { readonly as?: Reader['role'] } | null; readonly who: string | null } = {
    view: null,
    who: null,
  };
  /** The rows of a linked table that are wanted; undefined for the first ones. */
  private rows: WindowAsked | undefined;
  /** What this person types or pastes, with decimals after a point. */
  private readTyped = typedReader('.', false);
  private copied: Copied | null = null;
  private readonly undo = new UndoStack();
  private readonly newer = new HeldNewer();
  private readonly lastRead = new ReadCache();
  private readonly selected = new HeldSelection();
  private readonly seen = new SeenWindows();
  private readonly pastOfRules = new PastOfRules();
  private readonly turns = new Turns((share) => this.tell({ kind: 'work-progressed', share }));
  private readonly events: PageEvents;

  constructor(private readonly tellAll: (events: readonly Event[], transfer?: Transferable[]) => void) {
    this.events = new PageEvents(
      () =>
        this.current && {
          opened: this.current,
          shown: this.shown,
          selected: this.selected,
          seen: this.seen,
          undo: this.undo,
        },
      tellAll,
    );
  }

  private tell(event: Event): void {
    this.tellAll([event]);
  }

  /** One handler a request: the compiler holds each to the answer that its map promises. */
  private readonly handlers: Handlers<EngineQuestions> = {
    ...questions(() => this.opened),
    open: ({ sheet, theme, at, reads, who, decimal }) => {
      this.shown.theme = theme;
      this.reader = { view: reads ?? null, who: who ?? null };
      this.readTyped = typedReader(decimal ?? '.', reads !== undefined);
      return this.open(sheet, at);
    },
    'ask-past': ({ rule, past }) => {
      this.current?.past?.want(this.opened);
      return this.pastOfRules.summary(this.opened, rule, past);
    },
    'ask-past-rows': ({ rule, past }) => this.pastOfRules.rows(this.opened, rule, past),
    'show-rows': ({ window }) => {
      this.rows = window;
      return this.open(this.currentSheet.id);
    },
    'find-row': ({ rule }) => this.findRow(rule),
    stop: () => this.turns.stop(),
    'look-at': ({ area }) => {
      this.shown.area = area;
      return this.invalidate('window');
    },
    'use-theme': ({ theme }) => this.useTheme(theme),
    change: ({ operations }) =>
      this.change(operations, operations.some(({ kind }) => kind.includes('rules')) ? 'rules' : 'change'),
    enter: (asked) => this.enter(asked),
    edit: ({ edit, also }) => this.edit(edit, also),
    copy: ({ area }) => this.copy(area),
    paste: (asked) => this.paste(asked),
    filter: ({ filter }) => {
      this.shown.filter = filter;
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
      this.shown.spotlight = rule === null ? null : { rule, part };
      return this.invalidate('window');
    },
    select: ({ selection, seen }) => {
      this.selected.hold(this.sheet, selection, (sheet, place) => this.seen.idsOf(sheet, place, seen));
      const moved = this.seen.holds(seen) ? null : this.selected.moved(this.sheet);
      if (moved) this.tell({ kind: 'selection-moved', ...moved });
      this.current?.connection?.select(moved?.to ?? selection);
      // The preview column is about the selected field.
      return this.invalidate('cell', ...(this.shown.tried === null ? [] : ['window' as const]));
    },
    trial: ({ rule }) => {
      this.shown.tried = rule;
      return this.invalidate('window');
    },
    'own-rules': async ({ rules, whose }) =>
      this.change((await this.current?.personal?.own(rules, whose)) ?? [], 'rules'),
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
    export: (asked) => exportFile(this.opened, this.currentSheet.name, asked),
    judge: (asked) => this.judge(asked),
    'ask-advice': () => adviceInTurns(() => this.opened, this.turns),
    'ask-profile': (asked) => this.profileOf(asked),
    'ask-difference': ({ to }) => differenceFrom(this.opened, this.currentSheet.id, { theme: this.shown.theme, to }),
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
    if (!this.current?.connection) return;
    void this.turns.take(() => {
      this.opened.tick(nowMs);
      this.lastRead.forget();
      this.invalidate('window', 'legend');
    });
  }

  /** Leaves the sheet: nothing is heard of it or sent any more. */
  close(): void {
    this.current?.connection?.close();
    if (this.current) this.current = { ...this.current, connection: null };
  }

  private get currentSheet(): OpenedSheet {
    if (!this.current) throw new Error('the sheet is not open yet');
    return this.current;
  }

  private get opened(): Replica {
    return this.currentSheet.replica;
  }

  private get sheet() {
    return this.opened.sheet;
  }

  private useTheme(theme: Theme): null {
    const isNew = theme !== this.shown.theme;
    this.shown.theme = theme;
    // Given looks are made for one theme.
    if (this.reader.view && isNew && this.current) void this.open(this.current.id).catch(() => {});
    this.current?.replica.useTheme(theme);
    return this.invalidate('window', 'cell');
  }

  private async open(id: SheetId, at?: number): Promise<null> {
    const { view } = this.reader;
    const { theme } = this.shown;
    try {
      const bytes = await (view ? fetchPainted(id, { theme, as: view.as }) : fetchSheet(id, at, this.rows));
      return await this.turns.take(() => (view ? this.useView(id, bytes, view.as) : this.useSheet(id, bytes)));
    } catch (error) {
      this.tell({ kind: 'sheet-failed', message: messageOf(error) });
      throw error;
    }
  }

  private profileOf(asked: RequestOf<'ask-profile'>): RuleProfile {
    const { whole, evaluation } = this.opened;
    const rule = whole && evaluation.activeRules.find((running) => running.rule.id === asked.rule)?.rule;
    const known = rule && whole.profileOf(rule);
    return known ?? profileRule(evaluation, asked, this.lastRead.read(this.sheet, asked.reads));
  }

  /** Shows the rows of a linked table from the next one on in which a rule gives a look, or from the first again. */
  private async findRow(id: RuleId): Promise<CellPosition | null> {
    const { whole, evaluation } = this.opened;
    const running = evaluation.activeRules.find((candidate) => candidate.rule.id === id);
    if (!whole || !running) return null;
    const { rule, read } = running;
    try {
      const from = (await whole.nextRow(rule, whole.head.last)) ?? (await whole.nextRow(rule, null));
      if (!from) return null;
      this.rows = { from };
      await this.open(this.currentSheet.id);
    } catch (error) {
      this.tell({ kind: 'change-refused', message: messageOf(error) });
      return null;
    }
    const position = frozenRows(this.sheet);
    const found = nextMatch(this.opened, id, position - 1);
    // What comes from the database may not be here yet.
    return found?.position === position ? found : { column: read[0]?.column ?? 0, position };
  }

  private useSheet(id: SheetId, bytes: ArrayBuffer): null {
    const inTurn = (work: () => void, ...news: readonly News[]) =>
      void this.turns.take(work).then(() => this.invalidate(...news));
    const before = this.current?.id === id ? this.current.replica.whole : null;
    return this.attach(arrivedSheet(id, bytes, { theme: this.shown.theme, who: this.reader.who, before, inTurn }));
  }

  private useView(id: SheetId, bytes: ArrayBuffer, as?: Reader['role']): null {
    const { legend, ...arrived } = arrivedView(id, bytes, { theme: this.shown.theme, as });
    this.tell({ kind: 'meanings-changed', meanings: legend });
    return this.attach(arrived);
  }

  /** Works on a sheet as it came from the server from now on, with the changes that were on their way. */
  private attach({ opened, from }: ArrivedSheet): null {
    const waiting = this.current?.replica.waiting ?? [];
    const connection = this.current?.connection ?? (from ? this.connectTo(opened.id) : null);
    this.current = { ...opened, connection };
    if (from) connection?.use(opened.replica, from, waiting);
    return this.invalidate('frame', 'window', 'legend');
  }

  private connectTo(id: SheetId): Connection {
    return new Connection(id, this.reader.who, {
      take: (work) => void this.turns.take(work),
      tell: (event) => this.tell(event),
      note: (...news) => this.invalidate(...news),
      reopen: () => this.open(id),
      forget: (change) => this.undo.forget(change),
    });
  }

  private async change(asked: readonly Operation[], says: string): Promise<null> {
    const operations = (await this.currentSheet.personal?.take(asked)) ?? asked;
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
    const locked = this.currentSheet.lock?.refusalOf(asked) ?? null;
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
    this.currentSheet.connection?.send(change);
    done({ changeId: change.id, inverse, says });
    this.invalidate('frame', 'window', 'legend', 'undo');
  }

  private async enter({ cell, input, seen, heightPx }: RequestOf<'enter'>): Promise<null> {
    const { sheet } = this;
    const ids = 'row' in cell ? cell : this.seen.idsOf(sheet, cell, seen);
    const found = ids && sheet.findCell(ids);
    if (!found) {
      if (ids && input !== '') this.tell({ kind: 'change-refused', message: goneWhileTyping(input) });
      return null;
    }
    const { column, slot } = found;
    const before = sheet.column(column).inputAt(slot);
    if (before === input) return null;
    const kept = keepReferences(this.readTyped(input), sheet, inRow(sheet, slot));
    if (before === kept) return null;
    const says = `entry in ${columnLetters(column)}${sheet.positionOf(slot) + 1}`;
    const isLow = heightPx !== undefined && heightPx > (sheet.rowFormat(slot).heightPx ?? 0);
    return this.change(
      [
        { kind: 'set-cells', cells: [{ ...ids, input: kept }] },
        ...(isLow ? [{ kind: 'change-rows' as const, rows: [{ id: ids.row, heightPx }] }] : []),
      ],
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
    const isTold = this.currentSheet.lock !== null && fillingOf(this.sheet.parts.values()).outcomes === 'typing';
    return isTold
      ? judgeEntry(
          this.currentSheet.id,
          { theme: this.shown.theme, as: this.reader.view?.as },
          { row, field, input: this.readTyped(input) },
        )
      : null;
  }

  private fold(position: number, folded: boolean): null {
    const slot = this.sheet.order[position];
    if (slot === undefined) return null;
    if (folded) this.shown.folded.add(this.sheet.rowId(slot));
    else this.shown.folded.delete(this.sheet.rowId(slot));
    return this.invalidate('frame', 'window');
  }

  private copy(area: Area): CopiedText {
    const { copied, text } = copyArea(this.opened, area, nanoid(10));
    this.copied = copied;
    return text;
  }

  private async paste(asked: RequestOf<'paste'>): Promise<Area> {
    const { rows, area } = cellsToPaste(asked, this.copied, this.readTyped);
    await this.edit({ do: 'paste-cells', column: area.left, position: area.top, rows });
    return area;
  }

  private invalidate(...news: readonly News[]): null {
    // Whatever changes a cell also invalidates the frame.
    if (news.includes('frame')) this.lastRead.forget();
    this.events.note(...news);
    return null;
  }
}

const noField = (set: string, labels: readonly string[]): string =>
  `“${set}” was not used: there is no field called ${labels.map((label) => `“${label}”`).join(' or ')} here. Give a field that name, then try again.`;

const goneWhileTyping = (input: string): string =>
  `Somebody deleted the record or field while you typed into it. What you typed was: ${input.slice(0, 500)}`;
