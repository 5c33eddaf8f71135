/** The encodings of text that are read; names of the WHATWG Encoding Standard. */
export const ENCODINGS = ['utf-8', 'utf-16le', 'utf-16be', 'windows-1252'] as const;
export type Encoding = (typeof ENCODINGS)[number];

export interface DetectedEncoding {
  readonly encoding: Encoding;
  readonly why: string;
}

/**
 * The encoding of text from its first bytes: by its byte order mark (RFC 3629, RFC 2781); as UTF-16 where every other
 * byte is zero; as UTF-8 where the bytes are that; else Windows-1252, which takes any bytes. Give some thousand bytes,
 * or all there are.
 */
export function detectEncoding(head: Uint8Array): DetectedEncoding {
  const [first, second, third] = head;
  if (first === 0xef && second === 0xbb && third === 0xbf)
    return { encoding: 'utf-8', why: 'it begins with the byte order mark of UTF-8' };
  if (first === 0xff && second === 0xfe)
    return { encoding: 'utf-16le', why: 'it begins with the byte order mark of UTF-16' };
  if (first === 0xfe && second === 0xff)
    return { encoding: 'utf-16be', why: 'it begins with the byte order mark of UTF-16' };
  const zeros = zerosByPlace(head);
  if (zeros.odd > 0.4 && zeros.even < 0.1) return { encoding: 'utf-16le', why: 'every other byte is zero' };
  if (zeros.even > 0.4 && zeros.odd < 0.1) return { encoding: 'utf-16be', why: 'every other byte is zero' };
  if (isUtf8(head)) {
    const isPlain = head.every((byte) => byte < 0x80);
    return {
      encoding: 'utf-8',
      why: isPlain ? 'its first part is plain ASCII' : 'its accents and signs are valid UTF-8',
    };
  }
  return { encoding: 'windows-1252', why: 'it is not valid UTF-8' };
}

/** Shares of the bytes at even and at odd places that are zero. */
function zerosByPlace(head: Uint8Array): { readonly even: number; readonly odd: number } {
  let [even, odd] = [0, 0];
  head.forEach((byte, at) => {
    if (byte === 0 && at % 2 === 0) even++;
    else if (byte === 0) odd++;
  });
  const half = Math.max(1, head.length / 2);
  return { even: even / half, odd: odd / half };
}

function isUtf8(head: Uint8Array): boolean {
  try {
    // As a stream, so that a character cut off at the end is no fault.
    new TextDecoder('utf-8', { fatal: true }).decode(head, { stream: true });
    return true;
  } catch {
    return false;
  }
}
