import { zipSync, type Zippable } from 'fflate';
import { paintedRules, writtenRules, type WrittenRule } from '../workbook/written-rules';
import { holdsCell, cellAddress, columnLetters, type CellRange } from '../../sheet/address';
import { standardErrorWord, type CellValue } from '../../values/cell-value';
import { isoFromSerial } from '../../values/dates/date-serial';
import { isDatePattern } from '../../values/dates/date-format';
import { numberText } from '../../values/number-text';
import { shownText } from '../../values/shown-text';
import { formatValue } from '../../values/format-value';
import type { ExportedFile } from '../exported-file';
import { wholeArea, type ExportSource } from '../export-source';
import {
  datedStyle,
  frozenOf,
  mergesWithin,
  writtenRows,
  type WrittenCell,
  type WrittenRow,
} from '../workbook/written-sheet';
import { EARLIEST } from '../zip/earliest';
import { xml, XML_BEGIN, xmlText } from '../xml/write-xml';
import { PLACE, XmlBytes } from '../xml/xml-bytes';
import { toOdfFormula } from './formula-text';
import { ODF_NAMESPACES, ODF_TYPE } from './namespaces';
import { conditionsOf } from './write-conditions';
import { NAMESPACES, OdfStylesWriter, type WrittenMap } from './write-styles';

/**
 * Writes a sheet as a spreadsheet document of ISO/IEC 26300: values, formulas with what they gave, formatting, merges,
 * widths, and the rules as conditions of styles. The standard knows comparisons and formulas; rules of other kinds
 * leave the formatting of the cells that match now, and the report names them.
 */
export function writeOdf(source: ExportSource): ExportedFile {
  const { name, sheet, area } = source;
  const styles = new OdfStylesWriter();
  const tab = name.replace(/[[\]*?:/\\]/g, ' ').trim() || 'Sheet';
  const rules = writtenRules(source, (running) => conditionsOf(running, sheet, source.looks));
  const painted = paintedRules(rules);
  const maps = rules.flatMap(({ written }) =>
    written.map(({ areas, condition, base, style, name: called }) => ({
      areas,
      map: {
        condition,
        applies: styles.look(style, called),
        base: `'${tab.replaceAll("'", "''")}'.${cellAddress(base.column, base.position)}`,
      },
    })),
  );
  const own = area ?? wholeArea(sheet);
  const merges = mergesWithin(sheet, own);
  const into: RowsInto = { styles, maps, merges: new Merges(merges), width: own.right - own.left + 1 };
  let lostFormulas = 0;
  const frozen = area ? { columns: 0, rows: 0 } : frozenOf(sheet);
  let top = '';
  const body = new GroupedRows();
  for (const row of writtenRows(source, painted, () => lostFormulas++)) {
    if (row.position < frozen.rows) top += rowXml(row, into);
    else body.add(rowXml(row, into), row.level ?? 0);
  }
  const table = xml(
    'table:table',
    { 'table:name': tab },
    ...columns(source, styles, frozen.columns),
    top === '' ? '' : xml('table:table-header-rows', {}, top),
    PLACE,
  );
  const document = xml(
    'office:document-content',
    { ...NAMESPACES, 'office:version': '1.2' },
    styles.automaticStyles,
    xml('office:body', {}, xml('office:spreadsheet', {}, table, names(source, tab))),
  );
  const content = body.within(XML_BEGIN + document);
  return {
    parts: [packed({ 'content.xml': content, 'styles.xml': new TextEncoder().encode(styles.stylesPart) })],
    report: { rules: rules.map(({ fate }) => fate), notes: notesOf(rules, lostFormulas) },
  };
}

type WrittenRules = readonly WrittenRule<ReturnType<typeof conditionsOf>['written'][number]>[];

function notesOf(rules: WrittenRules, lostFormulas: number): string[] {
  const conditions = rules.reduce((sum, { written }) => sum + written.length, 0);
  const isOverlapping =
    conditions > 1 && rules.some(({ written, running }) => written.length > 0 && !running.rule.settles);
  return [
    ...(lostFormulas ? [`${lostFormulas} formulas are written as what they give`] : []),
    ...(isOverlapping
      ? [
          'Where several rules match a cell, only the look of the first is shown: the standard does not add looks together',
        ]
      : []),
  ];
}

/** The type comes first and as it is: ISO/IEC 26300-3, 3.3. */
function packed(parts: Readonly<Record<string, Uint8Array>>): Uint8Array<ArrayBuffer> {
  const encoder = new TextEncoder();
  const manifest =
    XML_BEGIN +
    xml(
      'manifest:manifest',
      { 'xmlns:manifest': ODF_NAMESPACES.manifest, 'manifest:version': '1.2' },
      xml('manifest:file-entry', {
        'manifest:full-path': '/',
        'manifest:version': '1.2',
        'manifest:media-type': ODF_TYPE,
      }),
      ...Object.keys(parts).map((part) =>
        xml('manifest:file-entry', { 'manifest:full-path': part, 'manifest:media-type': 'text/xml' }),
      ),
    );
  const files: Zippable = {
    mimetype: [encoder.encode(ODF_TYPE), { level: 0 }],
    ...parts,
    'META-INF/manifest.xml': encoder.encode(manifest),
  };
  return zipSync(files, { level: 6, mtime: EARLIEST });
}

/** Rows that stand deeper in an outline are in groups within one another, 9.1.13. */
class GroupedRows {
  private readonly bytes = new XmlBytes();
  private depth = 0;

  add(row: string, level: number): void {
    this.goTo(level);
    this.bytes.add(row);
  }

  /** A whole text with the rows where PLACE stands. */
  within(whole: string): Uint8Array<ArrayBuffer> {
    this.goTo(0);
    return this.bytes.within(whole);
  }

  private goTo(level: number): void {
    for (; this.depth < level; this.depth++) this.bytes.add('<table:table-row-group>');
    for (; this.depth > level; this.depth--) this.bytes.add('</table:table-row-group>');
  }
}

interface RowsInto {
  readonly styles: OdfStylesWriter;
  readonly maps: readonly { readonly areas: readonly CellRange[]; readonly map: WrittenMap }[];
  readonly merges: Merges;
  readonly width: number;
}

/** Merged cells by place. */
class Merges {
  constructor(private readonly areas: readonly CellRange[]) {}

  at(column: number, position: number): { readonly area: CellRange; readonly isFirst: boolean } | undefined {
    const area = this.areas.find((each) => holdsCell(each, column, position));
    return area && { area, isFirst: area.left === column && area.top === position };
  }
}

function rowXml({ position, heightPx, cells }: WrittenRow, into: RowsInto): string {
  const byColumn = new Map(cells.map((cell) => [cell.column, cell]));
  const here = into.maps.flatMap(({ areas, map }) => {
    const across = areas.filter(({ top, bottom }) => position >= top && position <= bottom);
    return across.length ? { across, map } : [];
  });
  const written: string[] = [];
  let blank = 0;
  const flush = () => {
    if (blank)
      written.push(xml('table:table-cell', { 'table:number-columns-repeated': blank > 1 ? blank : undefined }));
    blank = 0;
  };
  for (let column = 0; column < into.width; column++) {
    const maps = here.flatMap(({ across, map }) =>
      across.some(({ left, right }) => column >= left && column <= right) ? map : [],
    );
    const cell = byColumn.get(column);
    const merge = into.merges.at(column, position);
    if (!cell && !maps.length && !merge) blank++;
    else {
      flush();
      written.push(cellXml(cell ?? { column, value: { kind: 'blank' } }, { maps, merge, styles: into.styles }));
    }
  }
  flush();
  return xml(
    'table:table-row',
    { 'table:style-name': heightPx === undefined ? undefined : into.styles.row(heightPx) },
    ...written,
  );
}

interface CellInto {
  readonly maps: readonly WrittenMap[];
  readonly merge: ReturnType<Merges['at']>;
  readonly styles: OdfStylesWriter;
}

function cellXml(cell: WrittenCell, { maps, merge, styles }: CellInto): string {
  const { value, formula } = cell;
  const dated = datedStyle(cell);
  const number = dated?.number;
  const shown =
    number !== undefined &&
    (value.kind === 'number' || value.kind === 'date') &&
    isDatePattern(number) === (value.kind === 'date')
      ? (formatValue(value, number) ?? shownText(value, null))
      : shownText(value, null);
  const span = merge?.isFirst
    ? {
        'table:number-columns-spanned': merge.area.right - merge.area.left + 1,
        'table:number-rows-spanned': merge.area.bottom - merge.area.top + 1,
      }
    : {};
  return xml(
    merge && !merge.isFirst ? 'table:covered-table-cell' : 'table:table-cell',
    {
      'table:style-name': styles.cell(dated, maps),
      'table:formula': formula
        ? `of:${toOdfFormula(formula)}`
        : value.kind === 'error'
          ? `of:=${value.error}`
          : undefined,
      ...span,
      ...stored(value),
    },
    shown === ''
      ? ''
      : shown
          .split('\n')
          .map((line) => xml('text:p', {}, spaced(line)))
          .join(''),
  );
}

/** A value as a cell holds it, 19.385. Errors have no type of their own: they are text that a formula gives. */
function stored(value: CellValue): Record<string, string> {
  switch (value.kind) {
    case 'blank':
      return {};
    case 'number':
      return { 'office:value-type': 'float', 'office:value': numberText(value.number) };
    case 'date':
      return { 'office:value-type': 'date', 'office:date-value': isoFromSerial(value.serial) };
    case 'logical':
      return { 'office:value-type': 'boolean', 'office:boolean-value': value.logical ? 'true' : 'false' };
    case 'error':
      return { 'office:value-type': 'string', 'office:string-value': standardErrorWord(value.error) };
    case 'text':
      return { 'office:value-type': 'string' };
  }
}

/** White space that readers would skip, in the elements that stand for it, 6.1. */
const spaced = (line: string): string =>
  xmlText(line)
    .replace(/&#9;/g, '<text:tab/>')
    .replace(/^ +| {2,}| +$/g, (run) => `<text:s text:c="${run.length}"/>`);

function columns({ sheet, area = wholeArea(sheet) }: ExportSource, styles: OdfStylesWriter, frozen: number): string[] {
  const written = sheet.fields.slice(area.left, area.right + 1).map(({ widthPx, hidden }) =>
    xml('table:table-column', {
      'table:style-name': styles.column(widthPx),
      'table:visibility': hidden ? 'collapse' : undefined,
    }),
  );
  return frozen
    ? [xml('table:table-header-columns', {}, ...written.slice(0, frozen)), ...written.slice(frozen)]
    : written;
}

function names({ sheet, area }: ExportSource, tab: string): string {
  const parts = area ? [] : sheet.partsOf('name');
  if (parts.length === 0) return '';
  const table = `$'${tab.replaceAll("'", "''")}'`;
  const address = (refersTo: string) => {
    const [from = '', to] = refersTo.replace(/^=/, '').split(':');
    return to === undefined ? `${table}.${from}` : `${table}.${from}:.${to}`;
  };
  return xml(
    'table:named-expressions',
    {},
    ...parts.map(({ name, refersTo }) =>
      xml('table:named-range', {
        'table:name': name,
        'table:base-cell-address': `${table}.$${columnLetters(0)}$1`,
        'table:cell-range-address': address(refersTo),
      }),
    ),
  );
}
