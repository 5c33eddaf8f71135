import { BadFile } from '../bad-file';
import type { SheetInFile } from '../workbook/sheet-in-file';
import { readXml, readXmlWhole } from '../xml/read-xml';
import { childOf, childrenOf, type XmlElement } from '../xml/xml-element';
import { ODF_PREFIXES, ODF_TYPE } from './namespaces';
import { readTable } from './read-table';
import { OdfStyles } from './read-styles';

type Parts = ReadonlyMap<string, Uint8Array>;

/** Whether the parts of a packed file are a document of ISO/IEC 26300. */
export const isOdf = (parts: Parts): boolean =>
  parts.has('content.xml') && new TextDecoder().decode(parts.get('mimetype')).startsWith(ODF_TYPE.slice(0, 35));

/** The sheets of a spreadsheet document of ISO/IEC 26300, each read when it is asked for. Throws a BadFile. */
export function readOdf(parts: Parts): SheetInFile[] {
  const styles = new OdfStyles();
  const stylesPart = parts.get('styles.xml');
  if (stylesPart) {
    const root = readXmlWhole(stylesPart, 'styles.xml', ODF_PREFIXES);
    styles.add(childOf(root, 'office:styles'));
    styles.add(childOf(root, 'office:automatic-styles'));
  }
  const content = parts.get('content.xml')!;
  const names: string[] = [];
  let expressions: XmlElement[] = [];
  readXml(content, 'content.xml', {
    prefixes: ODF_PREFIXES,
    on: {
      // In a document that is one file, the named ones too.
      'office:styles': (element) => styles.add(element),
      'office:automatic-styles': (element) => styles.add(element),
      'table:named-expressions': (element) =>
        (expressions = [...expressions, ...childrenOf(element, 'table:named-range')]),
    },
    begin: (name, attributes) => {
      if (name === 'table:table') names.push(attributes['table:name'] ?? `Sheet ${names.length + 1}`);
    },
  });
  if (names.length === 0) throw new BadFile('there is no sheet in it');
  return names.map((name, place) => ({ name, read: () => readTable(content, { name, place, styles, expressions }) }));
}
