/** The vocabularies of ISO/IEC 26300-1 that sheets use, by the prefix that the standard gives them. */
export const ODF_NAMESPACES = {
  office: 'urn:oasis:names:tc:opendocument:xmlns:office:1.0',
  style: 'urn:oasis:names:tc:opendocument:xmlns:style:1.0',
  text: 'urn:oasis:names:tc:opendocument:xmlns:text:1.0',
  table: 'urn:oasis:names:tc:opendocument:xmlns:table:1.0',
  number: 'urn:oasis:names:tc:opendocument:xmlns:datastyle:1.0',
  fo: 'urn:oasis:names:tc:opendocument:xmlns:xsl-fo-compatible:1.0',
  manifest: 'urn:oasis:names:tc:opendocument:xmlns:manifest:1.0',
  of: 'urn:oasis:names:tc:opendocument:xmlns:of:1.2',
} as const;

export const ODF_PREFIXES: Readonly<Record<string, string>> = Object.fromEntries(
  Object.entries(ODF_NAMESPACES).map(([prefix, namespace]) => [namespace, `${prefix}:`]),
);

export const ODF_TYPE = 'application/vnd.oasis.opendocument.spreadsheet';
