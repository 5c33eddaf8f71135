import type { CellPosition } from '../../core/sheet/cell-position';
import type { FindQuery } from '../../core/edit/find';
import type { Edit } from '../../core/edit/registry';
import type { StylePatch } from '../../core/edit/styles';
import type { Style } from '../../core/looks/style';
import { parseRanges } from '../../core/sheet/address';
import type { AnswerOf, PasteHow } from '../../protocol/engine-messages';
import type { Area, Selection } from '../../protocol/sheet-view';
import { selectCell, selectedArea, selectedAreas } from '../grid/engine/selection';
import { widthOf } from '../grid/painter/width-of';
import type { ClipboardTable } from '../grid/clipboard/read-clipboard';
import { writeClipboard } from '../grid/clipboard/write-clipboard';
import { heightEdits } from './height-edits';
import type { SessionPort } from './session-port';

/** Actions on the cells, rows and fields of an open sheet: mostly on the selected ones. */
export class SheetActions {
  constructor(private readonly session: SessionPort) {}

  /** Does something to cells, rows or fields; where it cannot be done, says why. */
  async edit(edit: Edit): Promise<void> {
    await this.session.withErrorMessage(this.session.ask({ kind: 'edit', edit }));
  }

  /** Does the same to each range that is selected. */
  async editEach(edit: (area: Area) => Edit): Promise<void> {
    const [first, ...also] = selectedAreas(this.session.get().selection).map(edit);
    if (first) await this.session.withErrorMessage(this.session.ask({ kind: 'edit', edit: first, also }));
  }

  get area(): Area {
    return selectedArea(this.session.get().selection);
  }

  async addRecord(): Promise<void> {
    const position = await this.session.ask({ kind: 'ask-next-record' });
    await this.edit({ do: 'insert-rows', at: position, count: 1 });
    this.session.show(selectCell({ column: 0, position }));
  }

  /** Removes the records that hold the same as one above them, and says how many they were. */
  async removeDuplicates(): Promise<void> {
    const count = await this.session.ask({ kind: 'ask-duplicates' });
    if (count > 0) await this.edit({ do: 'remove-duplicates' });
    this.session.showMessage(this.session.t('countDuplicateRecordsRemoved', { count }));
  }

  /** Sizes fields to their texts. */
  async fitFields(left: number, right: number): Promise<void> {
    const texts = await this.session.ask({ kind: 'ask-texts', left, right });
    await this.edit({ do: 'set-widths', left, right, widthsPx: texts.map(widthOf) });
  }

  /** Continues the selected cells over a larger area, and selects it. */
  async fill(from: Area, to: Area): Promise<void> {
    await this.edit({ do: 'fill-cells', from, to });
    this.session.select({
      anchor: { column: to.left, position: to.top },
      focus: { column: to.right, position: to.bottom },
    });
  }

  /** Continues the first row or column of the selection over the rest of it. */
  async fillSelection(direction: 'down' | 'right'): Promise<void> {
    const to = this.area;
    await this.edit({
      do: 'fill-cells',
      from: direction === 'down' ? { ...to, bottom: to.top } : { ...to, right: to.left },
      to,
    });
  }

  /** Moves the selected rows up or down, or the selected fields left or right, by one. */
  async moveSelected(columns: number, rows: number): Promise<void> {
    const { frame, selection } = this.session.get();
    const { left, top, right, bottom } = this.area;
    if (!frame) return;
    const isOut = (first: number, last: number, count: number): boolean => first < 0 || last >= count;
    if (isOut(top + rows, bottom + rows, frame.rowCount) || isOut(left + columns, right + columns, frame.fields.length))
      return;
    const moved = this.edit(
      rows !== 0
        ? { do: 'move-rows', top, bottom, to: rows < 0 ? top - 1 : bottom + 2 }
        : { do: 'move-fields', left, right, to: columns < 0 ? left - 1 : right + 2 },
    );
    // The selection moves along at once: the next press of the key means the same rows.
    const shifted = ({ column, position }: Selection['anchor']) => ({
      column: column + columns,
      position: position + rows,
    });
    this.session.show({ anchor: shifted(selection.anchor), focus: shifted(selection.focus) });
    await moved;
  }

  /** Moves the selected fields or rows before another, and keeps them selected. */
  async moveTo(axis: 'columns' | 'rows', to: number): Promise<void> {
    const { left, top, right, bottom } = this.area;
    const [first, last] = axis === 'columns' ? [left, right] : [top, bottom];
    if (to >= first && to <= last + 1) return;
    const by = to > last ? to - last - 1 : to - first;
    const { anchor, focus } = this.session.get().selection;
    const moved = ({ column, position }: CellPosition): CellPosition =>
      axis === 'columns' ? { column: column + by, position } : { column, position: position + by };
    const done = this.edit(
      axis === 'columns' ? { do: 'move-fields', left, right, to } : { do: 'move-rows', top, bottom, to },
    );
    this.session.select({ anchor: moved(anchor), focus: moved(focus) });
    await done;
  }

  /** To the last cell that is filled, or the next one, that way. */
  async moveToEdge(columns: number, rows: number, extend: boolean): Promise<void> {
    const { anchor, focus } = this.session.get().selection;
    const cell = await this.session.ask({ kind: 'ask-edge', ...(extend ? focus : anchor), columns, rows });
    this.session.show(extend ? { anchor, focus: cell } : selectCell(cell));
  }

  /** Sets a mark on the selected cells, or removes it where the active one has it. */
  toggleMark(mark: 'bold' | 'italic' | 'underline' | 'strike'): void {
    this.style({ [mark]: this.session.get().cell?.style[mark] !== true });
  }

  style(patch: StylePatch): void {
    void this.editEach((area) => ({ do: 'apply-style', area, patch }));
  }

  /** Wraps the texts of the selected cells, in rows as high as they need, or shows them on one line again. */
  async wrap(on: boolean): Promise<void> {
    const areas = selectedAreas(this.session.get().selection);
    const edits = await Promise.all(
      areas.map(async (area): Promise<Edit[]> => {
        const texts = await this.session.ask({ kind: 'ask-wrapped', area, on });
        return [{ do: 'apply-style', area, patch: { wrap: on } }, ...heightEdits(area, texts, on)];
      }),
    );
    const [first, ...also] = edits.flat();
    if (first) await this.session.withErrorMessage(this.session.ask({ kind: 'edit', edit: first, also }));
  }

  /** Shows the selected cells as one, and says where that hides something. */
  async merge(): Promise<void> {
    const { filled } = await this.measure();
    await this.edit({ do: 'merge-cells', area: this.area });
    if (filled > 1) this.session.showMessage(this.session.t('mergedCellShowsFirst'));
  }

  async copy(): Promise<void> {
    if (this.session.get().selection.also?.length) return this.session.showMessage(this.session.t('copyOneRangeTime'));
    writeClipboard(await this.session.ask({ kind: 'copy', area: this.area }));
  }

  async cut(): Promise<void> {
    const { area } = this;
    await this.copy();
    if (!this.session.get().selection.also?.length) await this.edit({ do: 'clear-cells', area });
  }

  /** Pastes into the selection, and selects what was pasted. */
  async paste(from: ClipboardTable, how: PasteHow): Promise<void> {
    const into = this.area;
    const area = await this.session.withErrorMessage(this.session.ask({ kind: 'paste', area: into, ...from, how }));
    if (!area) return;
    this.session.select({
      anchor: { column: area.left, position: area.top },
      focus: { column: area.right, position: area.bottom },
    });
    this.session.setPasteHint({ table: from, area: into, how });
  }

  /** Repeats the last paste in another way. */
  async pasteAgain(how: PasteHow): Promise<void> {
    const { pasted } = this.session.get();
    if (!pasted) return;
    this.session.undo();
    const { left, top, right, bottom } = pasted.area;
    this.session.select({ anchor: { column: left, position: top }, focus: { column: right, position: bottom } });
    await this.paste(pasted.table, how);
  }

  private lifted: Style | null = null;

  /** Takes the style of the active cell, to lay it on others. */
  liftStyle(): void {
    this.lifted = this.session.get().cell?.style ?? {};
  }

  /** Gives the selected cells the style that was lifted, and takes from them what it does not have. */
  layStyle(): void {
    if (!this.lifted) return this.session.showMessage(this.session.t('copyStyleCellFirst'));
    const none: StylePatch = {
      fill: null,
      text: null,
      bold: null,
      italic: null,
      underline: null,
      strike: null,
      border: null,
      number: null,
      align: null,
      stand: null,
      wrap: null,
      sizePx: null,
      family: null,
    };
    this.style({ ...none, ...this.lifted });
  }

  /** Selects a cell, a range or a named range that was typed; says where it cannot be found. */
  jump(text: string): void {
    const { frame } = this.session.get();
    const named = frame?.names.find(({ name }) => name.toLowerCase() === text.trim().toLowerCase());
    const [range, ...others] = parseRanges((named?.refersTo ?? text).replace(/^=/, '').replaceAll('$', '')) ?? [];
    const field = frame?.fields.findIndex(({ label }) => label.toLowerCase() === text.trim().toLowerCase()) ?? -1;
    if (!frame) return;
    if (!range && field >= 0) {
      this.session.show({
        anchor: { column: field, position: 0 },
        focus: { column: field, position: frame.rowCount - 1 },
      });
      return;
    }
    const isIn = ({ left, top }: Area): boolean => left < frame.fields.length && top < frame.rowCount;
    const within = (area: Area): Area => ({
      ...area,
      right: Math.min(area.right, frame.fields.length - 1),
      bottom: Math.min(area.bottom, frame.rowCount - 1),
    });
    if (!range || ![range, ...others].every(isIn)) {
      this.session.showMessage(this.session.t('thereNoCellRange', { text }));
      return;
    }
    const { left, top, right, bottom } = within(range);
    this.session.show({
      anchor: { column: left, position: top },
      focus: { column: right, position: bottom },
      ...(others.length ? { also: others.map(within) } : {}),
    });
  }

  /** Folds away the rows beneath one, or brings them back. False where there are none. */
  toggleFold(position: number): boolean {
    const fold = this.session.get().frame?.folds.find((one) => one.position === position);
    if (fold) void this.session.ask({ kind: 'fold', position, folded: !fold.folded });
    return fold !== undefined;
  }

  find(wanted: FindQuery): Promise<AnswerOf<'find'> | undefined> {
    return this.session.withErrorMessage(this.session.ask({ kind: 'find', wanted }));
  }

  measure(): Promise<AnswerOf<'measure'>> {
    return this.session.ask({ kind: 'measure', areas: selectedAreas(this.session.get().selection) });
  }

  textsOf(column: number): Promise<AnswerOf<'ask-values'>> {
    return this.session.ask({ kind: 'ask-values', column });
  }
}
