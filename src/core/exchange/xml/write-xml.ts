export type XmlAttributes = Readonly<Record<string, string | number | boolean | undefined>>;

const UNSAFE = /[&<>"\t\n\r]/g;
const ESCAPED: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  '\t': '&#9;',
  '\n': '&#10;',
  '\r': '&#13;',
};
/** Characters that XML 1.0 cannot hold: control characters and unpaired surrogates. */
const UNWRITABLE =
  // oxlint-disable-next-line no-control-regex -- these are what is removed
  /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;

/** Text as an attribute or the content of an element. */
export const xmlText = (text: string): string =>
  PLAIN.test(text) ? text : text.replace(UNWRITABLE, '\ufffd').replace(UNSAFE, (sign) => ESCAPED[sign]!);

/** ASCII that stands for itself: most texts are no more. */
const PLAIN = /^[ !#-%'-;=?-~]*$/;

/** An element with its attributes, those undefined left out, and what is in it, already as XML. */
export function xml(name: string, attributes: XmlAttributes = {}, ...content: readonly string[]): string {
  let text = `<${name}`;
  for (const key in attributes) {
    const value = attributes[key];
    if (value === undefined) continue;
    text += ` ${key}="${typeof value === 'string' ? xmlText(value) : String(Number(value))}"`;
  }
  const inside = content.join('');
  return inside === '' ? `${text}/>` : `${text}>${inside}</${name}>`;
}

export const XML_BEGIN = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n';
