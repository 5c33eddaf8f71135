import { oneLoss } from '../../core/exchange/workbook/losses';
import { inDigits } from '../../core/values/counted';
import { itemAt } from '../../core/values/item-at';
import { endLine, headLine, rowLine } from '../../core/exchange/archive/archive-lines';
import { BadFile } from '../../core/exchange/bad-file';
import { tooManyCells } from '../../core/exchange/too-many-cells';
import { CsvRows } from '../../core/exchange/csv/csv-rows';
import { guessForm } from '../../core/exchange/csv/guess-form';
import { FieldFacts } from '../../core/exchange/import/field-facts';
import {
  decimalOf,
  describeField,
  findHeader,
  guessReading,
  type ReadingWhy,
  type TableReading,
} from '../../core/exchange/import/table-reading';
import { TableRows } from '../../core/exchange/import/table-rows';
import type { ImportFormat } from '../../core/exchange/import-formats';
import { LIMITS } from '../../core/exchange/limits';
import type { Table } from '../../core/values/table';
import { detectEncoding } from '../../core/exchange/text/detect-encoding';
import { columnLetters } from '../../core/sheet/address';
import type { FilePreview, ReadingChange, TextForm } from '../../protocol/import-messages';
import { nameOfFile, type ImportFile, type Progress } from './import-file';
import { textPieces } from './text-pieces';

/** Bytes from which the encoding and the separator are guessed, and rows that are shown. */
const HEAD_BYTES = 65_536;
const HEAD_ROWS = 60;

/** The formats that hold one table of texts. */
type TextFormat = Extract<ImportFormat, { readonly gives: 'table' | 'rows' }>;

type RowSource = (
  progress: Progress,
) => AsyncIterable<readonly (readonly string[])[]> | Iterable<readonly (readonly string[])[]>;

interface Scan {
  readonly facts: FieldFacts[];
  readonly head: (readonly string[])[];
  readonly longest: number[];
  rowCount: number;
}

/**
 * A file of separated values, or of JSON records. Separated values are gone through twice, to be looked at and to be
 * brought in, and never held whole.
 */
export class TextFile implements ImportFile {
  private scan: Scan = { facts: [], head: [], longest: [], rowCount: 0 };
  private reading!: TableReading;
  private why!: ReadingWhy;
  private form: TextForm | null = null;
  private table: Table | null = null;

  private constructor(
    private readonly file: File,
    private readonly format: string,
  ) {}

  static async open(file: File, format: TextFormat, progress: Progress): Promise<TextFile> {
    const head = new Uint8Array(await file.slice(0, HEAD_BYTES).arrayBuffer());
    const { encoding, why } = detectEncoding(head);
    const text = new TextDecoder(encoding).decode(head);
    const isWhole = head.length === file.size;
    const opened = new TextFile(file, format.words);
    if (format.gives === 'table') opened.table = format.read(await file.text());
    else {
      const { why: separatorWhy, ...guessed } = guessForm(text, isWhole);
      opened.form = { encoding, encodingWhy: why, separatorWhy, ...guessed };
    }
    await opened.scanAnew(undefined, progress);
    return opened;
  }

  private readonly rows: RowSource = (progress) => (this.table ? [this.table.rows] : this.csvRows(progress));

  private async *csvRows(progress: Progress): AsyncGenerator<string[][]> {
    const { encoding, ...form } = this.form!;
    const reader = new CsvRows(form);
    for await (const piece of textPieces(this.file, encoding, progress)) yield reader.push(piece);
    yield reader.end();
  }

  /** Goes through all rows. Without a header said, it is looked for. */
  private async scanAnew(header: number | null | undefined, progress: Progress): Promise<void> {
    const scan: Scan = { facts: [], head: [], longest: [], rowCount: 0 };
    let found = this.table ? 0 : header;
    let filled = 0;
    for await (const rows of this.rows(progress)) {
      if (found === undefined && rows.length)
        found = findHeader(rows.slice(0, 20), Math.max(...rows.slice(0, 20).map((cells) => cells.length)));
      for (const cells of rows) {
        if (cells.length > LIMITS.fields)
          throw new BadFile(
            `it has ${inDigits(cells.length)} cells; at most ${inDigits(LIMITS.fields)} are read`,
            `row ${scan.rowCount + 1}`,
          );
        if (scan.rowCount === LIMITS.rows)
          throw new BadFile(`it has more than ${inDigits(LIMITS.rows)} rows; a sheet takes no more`);
        if (scan.head.length < HEAD_ROWS) scan.head.push([...cells]);
        const row = scan.rowCount - (found ?? -1);
        for (let column = 0; column < cells.length; column++) {
          const cell = itemAt(cells, column);
          const facts = (scan.facts[column] ??= new FieldFacts());
          // Titles above the labels reach over the fields beside them.
          scan.longest[column] = Math.max(scan.longest[column] ?? 0, row < 0 ? 0 : cell.length);
          if (cell === '') continue;
          if (cell.length > LIMITS.cellText)
            throw new BadFile(
              `a cell has ${inDigits(cell.length)} characters; at most ${inDigits(LIMITS.cellText)} are read`,
              `row ${scan.rowCount + 1}`,
            );
          if (this.table && filled === LIMITS.cellsHeld) throw tooManyCells();
          if (++filled > LIMITS.cells)
            throw new BadFile(`it has more than ${inDigits(LIMITS.cells)} cells; a sheet takes no more`);
          if (row > 0) facts.add(cell);
        }
        scan.rowCount++;
      }
    }
    if (filled === 0) throw new BadFile('there is nothing in it');
    this.scan = scan;
    const { reading, why } = guessReading(scan.facts, found ?? null);
    this.reading = reading;
    this.why = why;
  }

  async change(change: ReadingChange, progress: Progress): Promise<void> {
    const { encoding, separator, quote, header, decimal, dates, formulas, as } = change;
    if (this.form && (encoding ?? separator ?? quote) !== undefined) {
      const before = this.form;
      this.form = {
        ...before,
        ...(encoding === undefined ? {} : { encoding, encodingWhy: 'as you chose' }),
        ...(separator === undefined ? {} : { separator, separatorWhy: 'as you chose' }),
        ...(quote === undefined ? {} : { quote }),
      };
      try {
        await this.scanAnew(undefined, progress);
      } catch (error) {
        this.form = before;
        throw error;
      }
    }
    if (header !== undefined) await this.scanAnew(header, progress);
    this.reading = {
      ...this.reading,
      ...(decimal === undefined ? {} : { decimal }),
      ...(dates === undefined ? {} : { dates }),
      ...(formulas === undefined ? {} : { formulas }),
      ...(as === undefined ? {} : { as: this.reading.as.with(as.column, as.as) }),
    };
  }

  private get labels(): readonly string[] {
    const { header } = this.reading;
    return header === null ? [] : (this.scan.head[header] ?? []);
  }

  preview(): FilePreview {
    const { facts, head, rowCount } = this.scan;
    const { labels, reading } = this;
    return {
      format: this.format,
      sheets: [nameOfFile(this.file.name)],
      sheet: 0,
      name: nameOfFile(this.file.name),
      rowCount,
      head,
      fields: facts.map((each, column) => ({
        ...describeField(each, decimalOf(reading.decimal, itemAt(reading.as, column))),
        as: itemAt(reading.as, column),
        label: labels[column]?.trim() || columnLetters(column),
      })),
      reading: { ...reading, why: this.why },
      header: reading.header,
      form: this.form,
      rules: [],
      losses: this.losses().map(oneLoss),
    };
  }

  private losses(): string[] {
    const { reading, scan } = this;
    const left = reading.as.filter((as) => as === 'nothing').length;
    const labels = this.labels.map((label) => label.trim().toLowerCase());
    const double = this.labels.find((label, at) => label.trim() && labels.indexOf(itemAt(labels, at)) !== at);
    return [
      ...(left ? [`${left} of ${scan.facts.length} fields are left out, as you chose`] : []),
      ...(double === undefined
        ? []
        : [`Two fields are called “${double.trim()}”: formulas and rules that name it mean the first`]),
    ];
  }

  async *lines(name: string, progress: Progress): AsyncGenerator<string> {
    const { rowCount, longest } = this.scan;
    const table = new TableRows({
      reading: this.reading,
      rowCount,
      labels: this.labels,
      widthsPx: longest.map(widthFor),
    });
    yield headLine({
      name,
      fields: table.fields,
      rules: [],
      settings: this.reading.dates ? { dates: this.reading.dates } : {},
    });
    let count = 0;
    for await (const rows of this.rows(progress)) {
      let lines = '';
      for (const cells of rows) lines += rowLine(table.next(cells));
      count += rows.length;
      yield lines;
    }
    yield endLine({ rows: count, changes: 0 });
  }
}

/** A width in pixels that shows a number of characters, within reason. */
const widthFor = (characters: number): number => Math.round(Math.min(280, Math.max(72, characters * 7.6 + 26)));
