const ESCAPE = /_x([0-9a-f]{4})_/gi;
// oxlint-disable-next-line no-control-regex -- these are what XML has no way to write
const UNWRITABLE = /[\u0000-\u0008\u000b\u000c\r\u000e-\u001f\ufffe\uffff]|_(?=x[0-9a-f]{4}_)/gi;

/** A text as such a file holds it (ISO/IEC 29500-1, 22.9.2.19), with the signs that its escapes stand for. */
export const fromXstring = (text: string): string =>
  text.replace(ESCAPE, (_, code: string) => String.fromCharCode(parseInt(code, 16)));

/** A text with escapes for the signs that XML cannot write, and for what would be read as one. */
export const toXstring = (text: string): string =>
  text.replace(UNWRITABLE, (sign) => `_x${sign.charCodeAt(0).toString(16).toUpperCase().padStart(4, '0')}_`);
