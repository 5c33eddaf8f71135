const LETTERS = new TextDecoder('latin1');

/** How files begin that hold no table, and the message for each. */
const BEGINNINGS: readonly (readonly [begins: RegExp, told: string])[] = [
  [/^(?:\u0089PNG|\u00ff\u00d8\u00ff|GIF8)/, 'it is a picture'],
  [/^%PDF-/, 'it is a PDF: copy the table in it and paste the rows'],
  [
    /^\u00d0\u00cf.\u00e0\u00a1\u00b1/s,
    'it is a binary workbook of an older kind, or one that is locked by a password: save it without one as a workbook of ISO/IEC 29500 or ISO/IEC 26300',
  ],
  [/^\s*<(?:!doctype html|html)\b/i, 'it is a page of HTML: copy the table in it and paste the rows'],
  [/^(?:\u00ef\u00bb\u00bf)?\s*<\?xml\b/, 'it is XML, but no document of ISO/IEC 26300'],
];

/** The kind of a file by its first bytes where it is no table; undefined for all others. */
export function otherKind(head: Uint8Array): string | undefined {
  const begin = LETTERS.decode(head.subarray(0, 256));
  return BEGINNINGS.find(([begins]) => begins.test(begin))?.[1];
}
