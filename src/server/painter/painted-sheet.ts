import { BadFile } from '../../core/exchange/bad-file';
import { EXPORT_FORMATS, type ExportFormatName } from '../../core/exchange/export-formats';
import type { ExportOptions } from '../../core/exchange/exported-file';
import { exportSource, type ExportSource } from '../../core/exchange/export-source';
import { recordsPage, type RecordsPage, type RecordsWanted } from '../../core/exchange/json/records-page';
import { savedLooks } from '../../core/sheet/sheet-looks';
import { Replica } from '../../engine/replica/replica';
import type { Effect } from '../../core/sheet/effect';
import type { SheetId } from '../../core/sheet/ids';
import { unpackSheet } from '../../protocol/packed/packed-sheet';
import { isFormulaInput } from '../../core/values/is-formula-input';
import { VisibleSheet } from '../../core/sharing/sight';
import type { GivenLook, Repaint } from '../../protocol/packed/painted-sheet';
import type { RecordedChange, SheetPast } from '../../protocol/recorded-change';
import { unzipPacked } from '../sheets/unzip-packed';
import type { JudgedCell, Refused, WholeFile } from './painter-messages';
import { lookFor, PaintedView, type ViewOf } from './painted-view';

/** A view is repainted no more often than it takes to scan: large sheets rest for the time they worked. */
const MAX_REST_MS = 2000;

/** Events that a sheet sends unasked. */
export interface PaintedReports {
  repainted(view: string, repaint: Repaint | 'stale'): void;
  /** The past before a place in the log counts for a rule, and is not known. */
  wantsPast(until: number): void;
  /** Something may be different for its views: `tell` is to be called after this many milliseconds. */
  wantsToTell(afterMs: number): void;
}

/**
 * One sheet evaluated on the server, with a view for each kind of reader. Runs in a worker process, and works only when
 * it is asked.
 */
export class PaintedSheet {
  private readonly replica: Replica;
  private readonly about: { readonly id: SheetId; readonly name: string };
  private readonly views = new Map<string, PaintedView>();
  /** Changes since the last repaint. */
  private changes: RecordedChange[] = [];
  private effects: Effect[] = [];
  private isToTell = false;
  private restMs = 0;
  private askedForPast = false;

  /** `packed` as `readPacked` gives it: compressed with gzip. */
  constructor(
    packed: Uint8Array,
    nowMs: number,
    private readonly reports: PaintedReports,
  ) {
    const { sheet, head } = unpackSheet(unzipPacked(packed));
    this.replica = new Replica(sheet, head.sequence, { theme: 'light', nowMs });
    this.about = { id: head.id, name: head.name };
    this.askForPast();
  }

  get sequence(): number {
    return this.replica.sequence;
  }

  /** The sheet as readers of one kind see it, compressed with gzip, and the id of their view. */
  paint(key: string, of: ViewOf): { readonly view: string; readonly packed: Uint8Array<ArrayBuffer> } {
    this.tell();
    let view = this.views.get(key);
    if (!view) this.views.set(key, (view = new PaintedView(this.replica, of)));
    return { view: view.id, packed: view.packed(this.about) };
  }

  /**
   * The look that an entry would have for a filler; null where that is not shown, or the cell is not theirs. Everything
   * is as before then.
   */
  judge(of: ViewOf, { row, field, input }: JudgedCell): GivenLook | null {
    const { sheet } = this.replica;
    const cell = sheet.findCell({ row, field });
    if (!cell || isFormulaInput(input)) return null;
    if (!new VisibleSheet(this.replica.evaluation, of.reader).judgesWhileTyping(cell.column, cell.slot)) return null;
    const id = 'judged';
    this.replica.apply({ id, operations: [{ kind: 'set-cells', cells: [{ row, field, input }] }] });
    const look = lookFor(this.replica, of, cell);
    this.replica.refuse(id);
    return look;
  }

  /** Records with their looks, for programs; or why what they want is none. */
  records(wanted: RecordsWanted): RecordsPage | Refused {
    return orRefused(() => recordsPage(this.source(), wanted, this.replica.sequence));
  }

  /** The sheet as a file; or why there is none. */
  export(format: ExportFormatName, options: ExportOptions): WholeFile | Refused {
    return orRefused(() => {
      const { parts, report } = EXPORT_FORMATS[format].write(this.source(), options);
      return { parts: [...parts], report };
    });
  }

  private source(): ExportSource {
    const { evaluation } = this.replica;
    const looks = savedLooks(evaluation.sheet.parts.values(), 'light');
    return exportSource(evaluation, { name: this.about.name, looks });
  }

  receive(changes: readonly RecordedChange[]): void {
    // One by one: a paste has more effects than a call takes arguments.
    for (const effect of this.replica.receiveAll(changes)) this.effects.push(effect);
    this.changes.push(...changes);
    this.askForPast();
    this.tellSoon();
  }

  usePast(past: SheetPast): void {
    this.replica.usePast(past);
    this.tellSoon();
  }

  tick(nowMs: number): void {
    this.replica.tick(nowMs);
    // Formulas may give something else anywhere.
    this.effects.push({ kind: 'layout' });
    this.tellSoon();
  }

  /** Nobody follows the view any more. */
  drop(key: string): void {
    this.views.delete(key);
  }

  private askForPast(): void {
    if (this.askedForPast || !this.replica.evaluation.needsHistory) return;
    this.askedForPast = true;
    this.reports.wantsPast(this.replica.openedAt);
  }

  private tellSoon(): void {
    if (this.isToTell) return;
    this.isToTell = true;
    this.reports.wantsToTell(this.restMs);
  }

  /** Brings the views up to date with the changes since the last repaint. */
  tell(): void {
    if (!this.isToTell) return;
    this.isToTell = false;
    const began = performance.now();
    const { changes, effects } = this;
    [this.changes, this.effects] = [[], []];
    for (const [key, view] of this.views) {
      const repaint = view.follow(changes, effects);
      if (repaint === 'stale') this.views.delete(key);
      if (repaint) this.reports.repainted(view.id, repaint);
    }
    this.restMs = Math.min(MAX_REST_MS, performance.now() - began);
  }
}

function orRefused<T>(task: () => T): T | Refused {
  try {
    return task();
  } catch (error) {
    if (error instanceof BadFile) return { refused: error.told };
    throw error;
  }
}
