/**
 * The characters of the bytes 0x80 to 0x9F in Windows-1252 (WHATWG Encoding Standard, its index); five of them are
 * undefined.
 */
const C1 = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008dŽ\u008f\u0090‘’“”•–—˜™š›œ\u009džŸ';

/**
 * Text that was decoded as Windows-1252: some decoders take it for ISO 8859-1, and give control characters instead of
 * quotes and dashes.
 */
export const asWindows1252 = (decoded: string): string =>
  decoded.replace(/[\u0080-\u009f]/g, (sign) => C1[sign.charCodeAt(0) - 0x80]!);
