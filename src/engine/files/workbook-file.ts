import { labelFromInput, textOfInput } from '../../core/sheet/label-from-input';
import { itemAt } from '../../core/values/item-at';
import { endLine, headLine, rowLine } from '../../core/exchange/archive/archive-lines';
import { BadFile } from '../../core/exchange/bad-file';
import { FieldFacts } from '../../core/exchange/import/field-facts';
import { describeField } from '../../core/exchange/import/table-reading';
import type { WorkbookInFile } from '../../core/exchange/workbook/read-workbook';
import type { SheetInFile } from '../../core/exchange/workbook/sheet-in-file';
import { headerOf, ruleNames, topRows, workbookContents } from '../../core/exchange/workbook/workbook-contents';
import type { WorkbookSheet } from '../../core/exchange/workbook/workbook-sheet';
import type { FilePreview, ReadingChange } from '../../protocol/import-messages';
import { nameOfFile, type ImportFile, type Progress } from './import-file';

const HEAD_ROWS = 60;

/** A workbook of ISO/IEC 29500 or ISO/IEC 26300: its sheets are read one at a time, when they are looked at. */
export class WorkbookFile implements ImportFile {
  private sheet!: WorkbookSheet;
  private facts: readonly FieldFacts[] = [];
  private header: number | null = null;
  private shown = 0;

  private constructor(
    private readonly file: File,
    private readonly format: string,
    private readonly sheets: readonly SheetInFile[],
  ) {}

  static async open(file: File, read: (bytes: Uint8Array) => WorkbookInFile): Promise<WorkbookFile> {
    const { format, sheets } = read(new Uint8Array(await file.arrayBuffer()));
    const opened = new WorkbookFile(file, format, sheets);
    // The first one that holds something.
    for (let place = 0; place < sheets.length; place++) if (opened.show(place)) return opened;
    throw new BadFile('there is nothing in any of its sheets');
  }

  /** False where the sheet is blank. */
  private show(place: number): boolean {
    this.sheet = itemAt(this.sheets, place).read();
    this.shown = place;
    this.useHeader(headerOf(this.sheet));
    return this.sheet.rowCount > 0;
  }

  private useHeader(header: number | null): void {
    this.header = header;
    const facts = Array.from({ length: this.sheet.width }, () => new FieldFacts());
    for (const [position, { cells }] of this.sheet.rows)
      if (header === null || position > header) for (const [column, { input }] of cells) facts[column]?.add(input);
    this.facts = facts;
  }

  async change({ sheet, header }: ReadingChange): Promise<void> {
    if (sheet !== undefined) this.show(sheet);
    if (header !== undefined) this.useHeader(header);
  }

  preview(): FilePreview {
    const { sheet, header } = this;
    const labels = header === null ? [] : itemAt(topRows(sheet, header + 1), header);
    const labelOf = (column: number) => labelFromInput(labels[column], column);
    const names = ruleNames(sheet, header);
    return {
      format: this.format,
      sheets: this.sheets.map(({ name }) => name),
      sheet: this.shown,
      name:
        this.sheets.length > 1
          ? `${nameOfFile(this.file.name)}: ${sheet.name}`.slice(0, 120)
          : nameOfFile(this.file.name),
      rowCount: sheet.rowCount,
      head: topRows(sheet, HEAD_ROWS).map((cells) => cells.map(textOfInput)),
      fields: this.facts.map((facts, column) => ({
        ...describeField(facts, '.'),
        as: 'values',
        label: labelOf(column),
      })),
      reading: null,
      header,
      form: null,
      rules: sheet.rules.map(({ reads }, at) => ({
        name: 'cells' in reads ? reads.cells : '',
        sentence: itemAt(names, at),
      })),
      losses: sheet.losses,
    };
  }

  async *lines(name: string, progress: Progress): AsyncGenerator<string> {
    const { rows, ...head } = workbookContents(this.sheet, { name, header: this.header });
    yield headLine(head);
    for (const [at, row] of rows.entries()) {
      yield rowLine(row);
      if (at % 1000 === 0) progress(at / rows.length);
    }
    yield endLine({ rows: rows.length, changes: 0 });
  }
}
