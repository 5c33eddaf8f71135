import { generateKeyBetween } from 'fractional-indexing';
import { nanoid } from 'nanoid';
import { columnLetters } from '../core/sheet/address';
import { shownAt } from '../core/sheet/shown-cell';
import { profileRule } from '../core/rules/profile-rule';
import { ruleSentence } from '../core/rules/sentence-words';
import { keepReferences, showReferences } from '../core/formula/keep-references';
import { traceCell } from '../core/rules/trace';
import type { CellInput, Operation } from '../core/sheet/change';
import type { Theme } from '../core/looks/first-family';
import type { SheetId } from '../core/sheet/ids';
import { unpackSheet } from '../protocol/packed-sheet';
import type { Area, CellAnswer, Event, LegendEntry, Request, SheetFrame, ShownField } from '../protocol/engine-messages';
import { LiveLink } from './live-link';
import { Replica } from './replica';
import { UndoStack, type Step } from './undo-stack';
import { windowOf } from './window-of';

/** What has to be told to the page since it was last told. */
type News = 'frame' | 'window' | 'legend' | 'undo';

/** Hosts the core for one page: keeps the sheet, follows the server, answers the page, and tells it what changed. */
export class Engine {
  private replica: Replica | null = null;
  private link: LiveLink | null = null;
  private readonly undo = new UndoStack();
  private name = '';
  private theme: Theme = 'light';
  private area: Area = { left: 0, top: 0, right: -1, bottom: -1 };
  private spotlight: string | null = null;
  private readonly news = new Set<News>();
  /** The frame as it was last told: most edits leave it as it is. */
  private toldFrame = '';

  constructor(private readonly tellAll: (events: readonly Event[], transfer?: Transferable[]) => void) {}

  private tell(event: Event): void {
    this.tellAll([event]);
  }

  async answer(request: Request): Promise<unknown> {
    switch (request.kind) {
      case 'open':
        this.theme = request.theme;
        return this.open(request.sheet);
      case 'look-at':
        this.area = request.area;
        return this.note('window');
      case 'use-theme':
        this.theme = request.theme;
        this.replica?.useTheme(request.theme);
        return this.note('window');
      case 'change':
        return this.change(request.operations);
      case 'enter':
        return this.enter(request.column, request.position, request.input);
      case 'clear':
        return this.clear(request.area);
      case 'add-record':
        return this.addRecord();
      case 'remove-rows':
        return this.change([
          { kind: 'remove-rows', rows: this.sheet.order.slice(request.top, request.bottom + 1).map((slot) => this.sheet.rowId(slot)) },
        ]);
      case 'undo':
      case 'redo':
        this.undo.step(request.kind, (operations) => this.apply(operations));
        return null;
      case 'draft':
        this.opened.setDraft(request.rule);
        return this.note('window', 'legend');
      case 'spotlight':
        this.spotlight = request.rule;
        return this.note('window');
      case 'ask-cell':
        return this.cell(request.column, request.position);
      case 'ask-match':
        return this.match(request.rule, request.after);
      case 'ask-profile':
        return profileRule(this.opened.evaluation, request);
    }
  }

  /** To be called now and then: what hangs on the clock follows it. */
  tick(nowMs: number): void {
    this.replica?.tick(nowMs);
    this.note('window', 'legend');
  }

  private get opened(): Replica {
    if (!this.replica) throw new Error('the sheet is not open yet');
    return this.replica;
  }

  private get sheet() {
    return this.opened.sheet;
  }

  private async open(id: SheetId): Promise<null> {
    const response = await fetch(`/api/sheets/${encodeURIComponent(id)}/packed`);
    if (!response.ok) {
      const message =
        response.status === 404 ? 'There is no such sheet. It may have been removed.' : 'The sheet could not be loaded. Try again in a moment.';
      this.tell({ kind: 'sheet-failed', message });
      throw new Error(message);
    }
    const unzipped = new Response(response.body!.pipeThrough(new DecompressionStream('gzip')));
    const { sheet, head } = unpackSheet(await unzipped.arrayBuffer());
    const waiting = this.replica?.waiting ?? [];
    this.link?.close();
    const replica = new Replica(sheet, head.sequence, { theme: this.theme, nowMs: Date.now() });
    this.replica = replica;
    this.name = head.name;
    this.link = new LiveLink(id, () => replica.sequence, {
      received: (changes) => {
        for (const change of changes) replica.receive(change);
        this.note('frame', 'window', 'legend');
        this.tellLink('live');
      },
      accepted: () => this.tellLink('live'),
      refused: (change, message) => {
        replica.refuse(change.id);
        this.undo.forget(change.id);
        this.tell({ kind: 'change-refused', message });
        this.tellLink('live');
        this.note('frame', 'window', 'legend', 'undo');
      },
      stale: () => void this.open(id).catch(() => this.tellLink('offline')),
      state: (state) => this.tellLink(state),
    });
    for (const change of waiting) {
      replica.apply(change);
      this.link.send(change);
    }
    return this.note('frame', 'window', 'legend');
  }

  private tellLink(state: 'live' | 'offline'): void {
    this.tell({ kind: 'link-changed', state, pending: this.replica?.waiting.length ?? 0 });
  }

  private change(operations: readonly Operation[]): null {
    this.undo.made(this.apply(operations));
    return null;
  }

  /** Applies operations here at once and sends them; gives what takes them back. */
  private apply(operations: readonly Operation[]): Step {
    const change = { id: nanoid(), operations };
    const inverse = this.opened.apply(change);
    this.link?.send(change);
    this.note('frame', 'window', 'legend', 'undo');
    return { changeId: change.id, inverse };
  }

  private enter(column: number, position: number, input: string): null {
    const slot = this.sheet.order[position];
    const field = this.sheet.fields[column];
    if (slot === undefined || !field) return null;
    const kept = keepReferences(input, this.sheet, slot);
    if (this.sheet.columns[column]!.inputAt(slot) === kept) return null;
    return this.change([{ kind: 'set-cells', cells: [{ row: this.sheet.rowId(slot), field: field.id, input: kept }] }]);
  }

  private clear({ left, top, right, bottom }: Area): null {
    const cells: CellInput[] = [];
    for (const slot of this.sheet.order.slice(top, bottom + 1))
      for (let column = left; column <= right; column++)
        if (this.sheet.columns[column]!.inputAt(slot) !== '')
          cells.push({ row: this.sheet.rowId(slot), field: this.sheet.fields[column]!.id, input: '' });
    return cells.length ? this.change([{ kind: 'set-cells', cells }]) : null;
  }

  private addRecord(): { position: number } {
    const last = this.sheet.order.at(-1);
    const key = generateKeyBetween(last === undefined ? null : this.sheet.rowKey(last), null);
    this.change([{ kind: 'insert-rows', rows: [{ id: nanoid(10), key, role: 'record', cells: {} }] }]);
    return { position: this.sheet.rowCount - 1 };
  }

  private cell(column: number, position: number): CellAnswer | null {
    const slot = this.sheet.order[position];
    const field = this.sheet.fields[column];
    if (slot === undefined || !field) return null;
    const trace = traceCell(this.opened.evaluation, this.opened.saved, { column, slot });
    return {
      column,
      position,
      row: this.sheet.rowId(slot),
      field: field.id,
      input: showReferences(this.sheet.columns[column]!.inputAt(slot), this.sheet, slot),
      shown: shownAt(this.sheet, column, slot),
      mistake: this.opened.evaluation.calculation.mistakeAt(column, slot) ?? null,
      trace,
    };
  }

  /** The next cell below a position that a rule gives a look, from the top again after the last. */
  private match(id: string, after: number): { column: number; position: number } | null {
    const running = this.opened.evaluation.running.find((candidate) => candidate.rule.id === id);
    const { order } = this.sheet;
    for (let step = 1; running && step <= order.length; step++) {
      const position = (after + step) % order.length;
      const read = running.read.find(({ column }) => running.shows(column, order[position]!));
      if (read) return { column: read.column, position };
    }
    return null;
  }

  private note(...news: readonly News[]): null {
    const first = this.news.size === 0;
    for (const item of news) this.news.add(item);
    // All that one message or one batch of changes brings is told once, as soon as it is in.
    if (first) queueMicrotask(() => this.tellNews());
    return null;
  }

  private tellNews(): void {
    const news = new Set(this.news);
    this.news.clear();
    if (!this.replica) return;
    const events: Event[] = [];
    const buffers: Transferable[] = [];
    const frame = news.has('frame') ? this.frame() : undefined;
    if (frame && JSON.stringify(frame) !== this.toldFrame) {
      this.toldFrame = JSON.stringify(frame);
      events.push({ kind: 'frame-changed', frame });
    }
    if (news.has('window')) {
      const window = windowOf(this.replica, this.area, this.spotlight);
      const frozen = windowOf(this.replica, { ...this.area, top: 0, bottom: this.frozenRows() - 1 }, this.spotlight);
      for (const part of [window, frozen]) buffers.push(part.looks.buffer, part.aligns.buffer, part.spotlit.buffer);
      events.push({ kind: 'window-resolved', window, frozen });
    }
    if (news.has('legend')) events.push({ kind: 'rules-counted', legend: this.legend() });
    if (news.has('undo')) events.push({ kind: 'undo-changed', ...this.undo.depth });
    this.tellAll(events, buffers);
  }

  private frame(): SheetFrame {
    const { sheet } = this;
    return { name: this.name, fields: this.shownFields(), rowCount: sheet.rowCount, frozenRows: this.frozenRows() };
  }

  /** Rows up to the header, where that is near the top. */
  private frozenRows(): number {
    return this.sheet.order.slice(0, 20).findLastIndex((slot) => this.sheet.roleAt(slot) === 'header') + 1;
  }

  private shownFields(): ShownField[] {
    return this.sheet.fields.map((field, column) => ({ ...field, label: this.sheet.labelOf(column) ?? columnLetters(column) }));
  }

  private legend(): LegendEntry[] {
    const stored = this.opened.rulesAtWork();
    const fields = this.shownFields();
    return this.opened.evaluation.running.map((running, at) => {
      const { rule } = running;
      return {
        read: running.readCount(),
        matched: running.shownCount(),
        id: rule.id,
        key: stored[at]!.key,
        rule,
        outcomes: running.outcomeCounts(),
        problem: running.problem,
        isDraft: rule.id === this.opened.draftId,
        sentence: ruleSentence(fields, rule),
      };
    });
  }
}
