import { describe, expect, test } from 'vitest';
import { detectEncoding } from './detect-encoding';
import { asWindows1252 } from './windows-1252';

const utf8 = (text: string) => new TextEncoder().encode(text);
const bytes = (...values: readonly number[]) => Uint8Array.from(values);
/** Two bytes a letter, the high one first. */
const utf16be = (text: string) =>
  bytes(...[...text].flatMap((letter) => [letter.charCodeAt(0) >> 8, letter.charCodeAt(0) & 0xff]));

describe('the encoding of text', () => {
  // Byte order marks by RFC 3629, section 6, and RFC 2781, section 3.2.
  test.each<[string, Uint8Array]>([
    ['utf-8', bytes(0xef, 0xbb, 0xbf, 0x61)],
    ['utf-16le', bytes(0xff, 0xfe, 0x61, 0)],
    ['utf-16be', bytes(0xfe, 0xff, 0, 0x61)],
    ['utf-16le', bytes(...utf16be('Station,Oxygen').toReversed().slice(0, 28))],
    ['utf-16be', utf16be('Station,Oxygen')],
    ['utf-8', utf8('Station,Oxygen\n')],
    ['utf-8', utf8('Étang,Größe,水\n')],
    // The last letter is cut off in its middle.
    ['utf-8', utf8('Étang,é').subarray(0, -1)],
    ['windows-1252', bytes(0xc9, 0x74, 0x61, 0x6e, 0x67)],
    ['utf-8', bytes()],
  ])('is %s', (encoding, head) => {
    expect(detectEncoding(head).encoding).toBe(encoding);
  });
});

// The index of windows-1252 in the WHATWG Encoding Standard, from memory.
test('quotes, dashes and the euro are themselves, whatever the decoder makes of them', () => {
  const typed = bytes(0x93, 0x45, 0x94, 0x20, 0x96, 0x20, 0x80, 0x35, 0xe9);
  expect(asWindows1252(new TextDecoder('windows-1252').decode(typed))).toBe('“E” – €5é');
  expect(asWindows1252(new TextDecoder('iso-8859-1').decode(typed))).toBe('“E” – €5é');
});
