import { BadFile } from '../bad-file';
import { parseFormula } from '../../formula/syntax/parse-formula';
import { isReferenceHere } from '../workbook/is-reference-here';
import type { SheetInFile } from '../workbook/sheet-in-file';
import type { WorkbookSheet } from '../workbook/workbook-sheet';
import { readXml, readXmlWhole } from '../xml/read-xml';
import { isTrue } from '../xml/xml-boolean';
import { childOf, childrenOf, textOf, type XmlElement } from '../xml/xml-element';
import { fromOoxmlFormula } from './formula-text';
import { OOXML_PREFIXES } from './prefixes';
import { themeColors } from './read-color';
import { readStyles } from './read-styles';
import { readWorksheet, richText } from './read-worksheet';

type Parts = ReadonlyMap<string, Uint8Array>;

/** Days between the two beginnings of time that a file can count from, 18.17.4.1. */
const FROM_1904 = 1462;

/** Whether the parts of a packed file are a workbook of ISO/IEC 29500. */
export const isOoxml = (parts: Parts): boolean => parts.has('[Content_Types].xml');

/**
 * The sheets of a workbook of ISO/IEC 29500-1, transitional or strict, each read when it is asked for. Throws a
 * BadFile.
 */
export function readOoxml(parts: Parts): SheetInFile[] {
  const start = partOfType(relationsOf(parts, ''), 'officeDocument') ?? 'xl/workbook.xml';
  const book = whole(parts, start);
  if (!book || book.name !== 'workbook') throw new BadFile('it is packed like a workbook, but there is none in it');
  const relations = relationsOf(parts, start);
  const theme = themeColors(wholeOfType(parts, relations, 'theme'));
  const styles = readStyles(wholeOfType(parts, relations, 'styles'), theme);
  const dateShift = isTrue(childOf(book, 'workbookPr')?.attributes.date1904) ? FROM_1904 : 0;
  let texts: readonly string[] | undefined;
  const sharedTexts = () => (texts ??= readSharedTexts(parts, partOfType(relations, 'sharedStrings')));
  const sheets = childrenOf(childOf(book, 'sheets'), 'sheet').flatMap(({ attributes }, place) => {
    const part = relations.find(({ id }) => id === attributes['r:id']);
    const bytes = part && parts.get(part.target);
    if (!bytes || !part.type.endsWith('/worksheet')) return [];
    const name = attributes.name ?? `Sheet ${place + 1}`;
    return {
      name,
      read: () =>
        readWorksheet(bytes, {
          name,
          part: part.target,
          styles,
          theme,
          texts: sharedTexts(),
          dateShift,
          names: namesFor(book, name, place),
        }),
    };
  });
  if (sheets.length === 0) throw new BadFile('there is no sheet in it');
  return sheets;
}

interface Relation {
  readonly id: string;
  readonly type: string;
  /** The name of the part. */
  readonly target: string;
}

/** The relationships of a part: ISO/IEC 29500-2, 9.3. */
function relationsOf(parts: Parts, part: string): Relation[] {
  const cut = part.lastIndexOf('/') + 1;
  const folder = part.slice(0, cut);
  const root = whole(parts, `${folder}_rels/${part.slice(cut)}.rels`);
  return childrenOf(root, 'Relationship').flatMap(({ attributes: { Id = '', Type = '', Target = '', TargetMode } }) =>
    TargetMode === 'External' ? [] : { id: Id, type: Type, target: resolved(folder, Target) },
  );
}

/** A target as the name of a part: from the root, or from the folder of what refers to it. */
function resolved(folder: string, target: string): string {
  const steps: string[] = [];
  for (const step of (target.startsWith('/') ? target : folder + target).split('/')) {
    if (step === '..') steps.pop();
    else if (step !== '' && step !== '.') steps.push(step);
  }
  return steps.join('/');
}

const partOfType = (relations: readonly Relation[], type: string): string | undefined =>
  relations.find((relation) => relation.type.endsWith(`/${type}`))?.target;

function whole(parts: Parts, name: string): XmlElement | undefined {
  const bytes = parts.get(name);
  return bytes && readXmlWhole(bytes, name, OOXML_PREFIXES);
}

const wholeOfType = (parts: Parts, relations: readonly Relation[], type: string): XmlElement | undefined => {
  const name = partOfType(relations, type);
  return name === undefined ? undefined : whole(parts, name);
};

function readSharedTexts(parts: Parts, part: string | undefined): readonly string[] {
  const bytes = part === undefined ? undefined : parts.get(part);
  const texts: string[] = [];
  if (part !== undefined && bytes)
    readXml(bytes, part, { prefixes: OOXML_PREFIXES, on: { si: (element) => texts.push(richText(element)) } });
  return texts;
}

/** Names for cells of one sheet, 18.2.5: those of the whole workbook and its own. */
function namesFor(book: XmlElement, sheet: string, place: number): WorkbookSheet['names'] {
  return childrenOf(childOf(book, 'definedNames'), 'definedName').flatMap((element) => {
    const { name = '', localSheetId, hidden } = element.attributes;
    const text = fromOoxmlFormula(textOf(element), sheet);
    if (
      name.startsWith('_xlnm.') ||
      hidden ||
      text === undefined ||
      (localSheetId !== undefined && Number(localSheetId) !== place)
    )
      return [];
    return isReferenceHere(parseFormula(text)) ? { name, refersTo: text } : [];
  });
}
