import { SaxesParser, type SaxesTagNS } from 'saxes';
import { lastItem } from '../../values/item-at';
import { BadFile } from '../bad-file';
import { LIMITS } from '../limits';
import type { XmlElement } from './xml-element';

export interface XmlReading {
  /** The prefixes of a vocabulary, by its namespace; names of the others begin with their namespace in braces. */
  readonly prefixes: Readonly<Record<string, string>>;
  /** Called with each whole element of these names; nothing else is kept. */
  readonly on: Readonly<Record<string, (element: XmlElement) => void>>;
  /** Names and attributes of elements around, as they begin. */
  readonly begin?: (name: string, attributes: Readonly<Record<string, string>>) => void;
  readonly end?: (name: string) => void;
}

interface Open {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly content: (string | XmlElement)[];
}

/** Bytes that are read at once. */
const PIECE = 262_144;

/**
 * Goes through an XML 1.0 part and hands over the elements that are asked for, so that one of any size takes the memory
 * of one such element. A document type is refused, and with it every entity but the five of the standard. Throws a
 * BadFile.
 */
export function readXml(bytes: Uint8Array, part: string, reading: XmlReading): void {
  const parser = new SaxesParser({ xmlns: true, position: true });
  const { prefixes, on, begin, end } = reading;
  const open: Open[] = [];
  let depth = 0;
  const names = new Names(prefixes);
  const fail = (message: string): never => {
    throw new BadFile(message, `${part}, line ${parser.line}`);
  };
  parser.on('error', (error) => fail(`it is not well-formed XML (${error.message.replace(/^\d+:\d+: /, '')})`));
  parser.on('doctype', () => fail('it has a document type, which files like this do not need and which is refused'));
  parser.on('opentag', (tag: SaxesTagNS) => {
    if (++depth > LIMITS.depth) fail(`elements stand within one another more than ${LIMITS.depth} deep`);
    const name = names.of(tag.uri, tag.local);
    const attributes: Record<string, string> = {};
    for (const key in tag.attributes) {
      const { uri, local, prefix, value } = tag.attributes[key]!;
      if (prefix !== 'xmlns' && local !== 'xmlns') attributes[names.of(uri, local)] = value;
    }
    if (open.length === 0 && !(name in on)) return begin?.(name, attributes);
    open.push({ name, attributes, content: [] });
  });
  const addText = (text: string) => {
    if (open.length) lastItem(open).content.push(text);
  };
  parser.on('text', addText);
  parser.on('cdata', addText);
  parser.on('closetag', (tag: SaxesTagNS) => {
    depth--;
    const done = open.pop();
    if (!done) return end?.(names.of(tag.uri, tag.local));
    const around = open.at(-1);
    if (around) around.content.push(done);
    else on[done.name]!(done);
  });
  const decoder = new TextDecoder(
    bytes[0] === 0xff && bytes[1] === 0xfe ? 'utf-16le' : bytes[0] === 0xfe && bytes[1] === 0xff ? 'utf-16be' : 'utf-8',
  );
  for (let at = 0; at < bytes.length; at += PIECE)
    parser.write(decoder.decode(bytes.subarray(at, at + PIECE), { stream: true }));
  parser.write(decoder.decode()).close();
}

/** Names as readers know them: local ones with the prefix of their vocabulary. Each is made once. */
class Names {
  private readonly known = new Map<string, Map<string, string>>();

  constructor(private readonly prefixes: XmlReading['prefixes']) {}

  of(uri: string, local: string): string {
    if (uri === '') return local;
    let own = this.known.get(uri);
    if (!own) this.known.set(uri, (own = new Map()));
    let name = own.get(local);
    if (name === undefined) {
      const prefix = this.prefixes[uri];
      own.set(local, (name = prefix === undefined ? `{${uri}}${local}` : prefix + local));
    }
    return name;
  }
}

/** The root of a small part. Throws a BadFile. */
export function readXmlWhole(bytes: Uint8Array, part: string, prefixes: XmlReading['prefixes']): XmlElement {
  const top: Open = { name: '', attributes: {}, content: [] };
  const found: XmlElement[] = [];
  // Whatever the root is called, it is asked for.
  const on = new Proxy({}, { has: () => true, get: () => (element: XmlElement) => found.push(element) });
  readXml(bytes, part, { prefixes, on });
  return found[0] ?? top;
}
