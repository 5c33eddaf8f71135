import { generateKeyBetween, generateNKeysBetween } from 'fractional-indexing';
import { itemAt } from '../../values/item-at';
import { keepReferences } from '../../formula/resolve/keep-references';
import type { StoredRow } from '../../sheet/change';
import { newField, type Field } from '../../sheet/field';
import type { Layout } from '../../sheet/layout/layout-move';
import { Sheet } from '../../sheet/sheet';
import { inputOf, type TableReading } from './table-reading';

/** Ids of what is brought in, by place: formulas refer to rows that have not been read yet. */
export const fieldIdAt = (column: number): string => `f${column + 1}`;
export const rowIdAt = (position: number): string => `r${position + 1}`;

interface TableForm {
  readonly reading: TableReading;
  readonly rowCount: number;
  /** The cells of the row of labels; empty where there is none. */
  readonly labels: readonly string[];
  /** By column. */
  readonly widthsPx: readonly number[];
}

/** Turns the rows of a text file into those of a sheet, one after another from the top. */
export class TableRows {
  readonly fields: readonly Field[];
  private readonly columns: readonly number[];
  private readonly labelled: Sheet;
  private places: Layout | undefined;
  private position = 0;
  private key: string | null = null;

  constructor(private readonly form: TableForm) {
    this.columns = form.reading.as.flatMap((as, column) => (as === 'nothing' ? [] : column));
    const keys = generateNKeysBetween(null, null, this.columns.length);
    this.fields = this.columns.map((column, at) =>
      newField(fieldIdAt(column), itemAt(keys, at), { widthPx: itemAt(form.widthsPx, column) }),
    );
    this.labelled = new Sheet(this.fields);
    const labels = Object.fromEntries(this.columns.map((column) => [fieldIdAt(column), form.labels[column] ?? '']));
    if (form.reading.header !== null)
      this.labelled.apply({ kind: 'insert-rows', rows: [{ id: 'labels', key: 'a0', role: 'header', cells: labels }] });
  }

  next(raw: readonly string[]): StoredRow {
    const { reading } = this.form;
    const position = this.position++;
    const id = rowIdAt(position);
    this.key = generateKeyBetween(this.key, null);
    const isAbove = reading.header !== null && position < reading.header;
    const isHeader = position === reading.header;
    const cells: Record<string, string> = {};
    for (const column of this.columns) {
      const text = raw[column] ?? '';
      if (text === '') continue;
      const input = isHeader ? text : this.kept(inputOf(text, reading, itemAt(reading.as, column)), id);
      if (input !== '') cells[fieldIdAt(column)] = input;
    }
    return { id, key: this.key, role: isHeader ? 'header' : isAbove ? 'title' : 'record', cells };
  }

  private kept(input: string, row: string): string {
    if (!input.startsWith('=')) return input;
    // Fields that are left out have their place all the same: letters mean what they meant in the file.
    this.places ??= {
      rows: Array.from({ length: this.form.rowCount }, (_, position) => rowIdAt(position)),
      fields: this.form.reading.as.map((_, column) => fieldIdAt(column)),
    };
    return keepReferences(input, this.labelled, { row, places: this.places });
  }
}
