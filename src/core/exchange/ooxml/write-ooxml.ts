import { zipSync } from 'fflate';
import { paintedRules, writtenRules } from '../workbook/written-rules';
import { toOoxmlFormula } from './formula-text';
import { columnLetters, writeArea } from '../../sheet/address';
import { standardErrorWord, type CellValue } from '../../values/cell-value';
import { numberText } from '../../values/number-text';
import { wholeArea, type ExportSource } from '../export-source';
import type { ExportedFile } from '../exported-file';
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
import { MAIN_NAMESPACE, RELATIONSHIPS_NAMESPACE } from './prefixes';
import { conditionsOf, writeConditions } from './write-conditions';
import { StylesWriter } from './write-styles';
import { toXstring } from './xstring';

/**
 * Writes a sheet as a workbook of ISO/IEC 29500 (transitional): values, formulas with what they gave, formatting,
 * merges, widths, and the rules as conditional formats. Rules that the standard cannot say leave the formatting of the
 * cells that match now; the report names them.
 */
export function writeOoxml(source: ExportSource): ExportedFile {
  const { sheet, looks, area } = source;
  const styles = new StylesWriter();
  const into = { sheet, saved: looks, lookNumber: (look: Parameters<typeof styles.look>[0]) => styles.look(look) };
  // Ranges of rules are those of the whole sheet.
  const rules = writtenRules(source, (running) => conditionsOf(running, into));
  const painted = paintedRules(rules);
  const texts = new Map<string, number>();
  const notes: string[] = [];
  let lostFormulas = 0;
  const rows = new XmlBytes();
  for (const row of writtenRows(source, painted, () => lostFormulas++)) rows.add(rowXml(row, { styles, texts }));
  if (lostFormulas) notes.push(`${lostFormulas} formulas are written as what they give`);
  const own = wholeArea(sheet);
  const parts: Record<string, string> = {
    '[Content_Types].xml': contentTypes(),
    '_rels/.rels': relations([['officeDocument', 'xl/workbook.xml']]),
    'xl/workbook.xml': workbook(source),
    'xl/_rels/workbook.xml.rels': relations([
      ['worksheet', 'worksheets/sheet1.xml'],
      ['styles', 'styles.xml'],
      ['sharedStrings', 'sharedStrings.xml'],
    ]),
    'xl/styles.xml': styles.write(),
    'xl/sharedStrings.xml':
      XML_BEGIN +
      xml(
        'sst',
        { xmlns: MAIN_NAMESPACE },
        ...[...texts.keys()].map((text) =>
          xml('si', {}, xml('t', { 'xml:space': 'preserve' }, xmlText(toXstring(text)))),
        ),
      ),
  };
  const worksheet = xml(
    'worksheet',
    { xmlns: MAIN_NAMESPACE },
    sheetView(source),
    columns(source),
    xml('sheetData', {}, PLACE),
    merges(mergesWithin(sheet, area ?? own).map(writeArea)),
    writeConditions(rules.flatMap(({ written }) => written)),
  );
  const encoder = new TextEncoder();
  const bytes = zipSync(
    {
      ...Object.fromEntries(Object.entries(parts).map(([name, text]) => [name, encoder.encode(text)])),
      'xl/worksheets/sheet1.xml': rows.within(XML_BEGIN + worksheet),
    },
    { level: 6, mtime: EARLIEST },
  );
  return { parts: [bytes], report: { rules: rules.map(({ fate }) => fate), notes } };
}

interface CellsInto {
  readonly styles: StylesWriter;
  /** Texts and their numbers. */
  readonly texts: Map<string, number>;
}

function rowXml({ position, heightPx, level, cells }: WrittenRow, into: CellsInto): string {
  if (cells.length === 0 && heightPx === undefined && level === undefined) return '';
  return xml(
    'row',
    {
      r: position + 1,
      ht: heightPx === undefined ? undefined : (heightPx * 3) / 4,
      customHeight: heightPx === undefined ? undefined : true,
      outlineLevel: level,
    },
    ...cells.map((cell) => cellXml(cell, position, into)),
  );
}

function cellXml(cell: WrittenCell, position: number, { styles, texts }: CellsInto): string {
  const { column, value, formula } = cell;
  const { type, content } = stored(value, formula ? 'given by a formula' : texts);
  const text = formula && toOoxmlFormula(formula);
  const format = styles.cellFormat(datedStyle(cell));
  // Put together by hand, as there are millions of them.
  const begin = `<c r="${columnLetters(column)}${position + 1}"${format ? ` s="${format}"` : ''}${type ? ` t="${type}"` : ''}`;
  const inside =
    (text === undefined ? '' : `<f>${xmlText(text)}</f>`) + (content === '' ? '' : `<v>${xmlText(content)}</v>`);
  return inside === '' ? `${begin}/>` : `${begin}>${inside}</c>`;
}

/** A value as a cell holds it, 18.3.1.4. */
function stored(
  value: CellValue,
  texts: Map<string, number> | 'given by a formula',
): { readonly type?: string; readonly content: string } {
  switch (value.kind) {
    case 'blank':
      return { content: '' };
    case 'number':
      return { content: numberText(value.number) };
    case 'date':
      return { content: numberText(value.serial) };
    case 'logical':
      return { type: 'b', content: value.logical ? '1' : '0' };
    case 'error':
      return { type: 'e', content: standardErrorWord(value.error) };
    case 'text': {
      if (typeof texts === 'string') return { type: 'str', content: toXstring(value.text) };
      const place = texts.get(value.text) ?? texts.size;
      texts.set(value.text, place);
      return { type: 's', content: String(place) };
    }
  }
}

function columns({ sheet, area = wholeArea(sheet) }: ExportSource): string {
  const shown = sheet.fields.slice(area.left, area.right + 1);
  return xml(
    'cols',
    {},
    ...shown.map(({ widthPx, hidden }, at) =>
      xml('col', {
        min: at + 1,
        max: at + 1,
        width: numberText((widthPx - 5) / 7),
        hidden: hidden || undefined,
        customWidth: true,
      }),
    ),
  );
}

function sheetView({ sheet, area }: ExportSource): string {
  const { columns: left, rows: top } = area ? { columns: 0, rows: 0 } : frozenOf(sheet);
  if (!left && !top) return '';
  const pane = xml('pane', {
    xSplit: left || undefined,
    ySplit: top || undefined,
    topLeftCell: columnLetters(left) + (top + 1),
    activePane: left && top ? 'bottomRight' : left ? 'topRight' : 'bottomLeft',
    state: 'frozen',
  });
  return xml('sheetViews', {}, xml('sheetView', { workbookViewId: 0 }, pane));
}

const merges = (areas: readonly string[]): string =>
  areas.length ? xml('mergeCells', { count: areas.length }, ...areas.map((ref) => xml('mergeCell', { ref }))) : '';

/** Sheets have names of at most 31 characters there, without some signs. */
const sheetName = (name: string): string =>
  name
    .replace(/[\\/*?:[\]]/g, ' ')
    .replace(/^'|'$/g, '')
    .trim()
    .slice(0, 31) || 'Sheet';

function workbook({ name, sheet, area }: ExportSource): string {
  const tab = sheetName(name);
  const names = area ? [] : sheet.partsOf('name');
  return (
    XML_BEGIN +
    xml(
      'workbook',
      { xmlns: MAIN_NAMESPACE, 'xmlns:r': RELATIONSHIPS_NAMESPACE },
      xml('sheets', {}, xml('sheet', { name: tab, sheetId: 1, 'r:id': 'rId1' })),
      names.length
        ? xml(
            'definedNames',
            {},
            ...names.map(({ name: own, refersTo }) =>
              xml(
                'definedName',
                { name: own },
                xmlText(`'${tab.replaceAll("'", "''")}'!${refersTo.replace(/^=/, '')}`),
              ),
            ),
          )
        : '',
    )
  );
}

const relations = (targets: readonly (readonly [type: string, target: string])[]): string =>
  XML_BEGIN +
  xml(
    'Relationships',
    { xmlns: 'http://schemas.openxmlformats.org/package/2006/relationships' },
    ...targets.map(([type, target], at) =>
      xml('Relationship', { Id: `rId${at + 1}`, Type: `${RELATIONSHIPS_NAMESPACE}/${type}`, Target: target }),
    ),
  );

function contentTypes(): string {
  const kind = 'application/vnd.openxmlformats-officedocument.spreadsheetml';
  const override = (part: string, type: string) =>
    xml('Override', { PartName: part, ContentType: `${kind}.${type}+xml` });
  return (
    XML_BEGIN +
    xml(
      'Types',
      { xmlns: 'http://schemas.openxmlformats.org/package/2006/content-types' },
      xml('Default', { Extension: 'rels', ContentType: 'application/vnd.openxmlformats-package.relationships+xml' }),
      xml('Default', { Extension: 'xml', ContentType: 'application/xml' }),
      override('/xl/workbook.xml', 'sheet.main'),
      override('/xl/worksheets/sheet1.xml', 'worksheet'),
      override('/xl/styles.xml', 'styles'),
      override('/xl/sharedStrings.xml', 'sharedStrings'),
    )
  );
}
