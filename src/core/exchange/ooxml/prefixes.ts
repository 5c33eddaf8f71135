/** The vocabularies of ISO/IEC 29500, transitional and strict, under one name each. */
const MAIN = [
  'http://schemas.openxmlformats.org/spreadsheetml/2006/main',
  'http://purl.oclc.org/ooxml/spreadsheetml/main',
] as const;
const RELATIONSHIPS = [
  'http://schemas.openxmlformats.org/officeDocument/2006/relationships',
  'http://purl.oclc.org/ooxml/officeDocument/relationships',
] as const;
const DRAWING = [
  'http://schemas.openxmlformats.org/drawingml/2006/main',
  'http://purl.oclc.org/ooxml/drawingml/main',
] as const;

export const OOXML_PREFIXES: Readonly<Record<string, string>> = {
  [MAIN[0]]: '',
  [MAIN[1]]: '',
  [RELATIONSHIPS[0]]: 'r:',
  [RELATIONSHIPS[1]]: 'r:',
  [DRAWING[0]]: 'a:',
  [DRAWING[1]]: 'a:',
  'http://schemas.openxmlformats.org/package/2006/relationships': '',
  'http://schemas.openxmlformats.org/package/2006/content-types': '',
  'http://www.w3.org/XML/1998/namespace': 'xml:',
};

export const MAIN_NAMESPACE = MAIN[0];
export const RELATIONSHIPS_NAMESPACE = RELATIONSHIPS[0];
