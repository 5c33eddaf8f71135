import { color } from 'd3-color';
import { hasKey } from '../../../values/typed-keys';
import type { BorderSide, Fill, Hex, Look } from '../../../looks/look';
import { readableText } from '../../../looks/readable-text';

/** Words for a style beside its colours. */
const STYLES = {
  bold: { bold: true },
  italic: { italic: true },
  underlined: { underline: true },
  underline: { underline: true },
  struck: { strike: true },
  strikethrough: { strike: true },
} as const satisfies Record<string, Look>;
/** Words after a colour that say what has it. */
const TEXT_NOUNS = new Set(['text', 'letters']);
const FILL_NOUNS = new Set(['fill', 'background', 'cells']);
const BORDER_NOUNS = new Set(['border', 'borders']);
/** Words between two parts of a look. */
const CONNECTORS = new Set(['and', 'with', 'a', 'an']);
const TRANSLUCENT = new Set(['translucent', 'transparent', 'see-through']);
/** How much of a translucent fill is seen. */
const OPACITY = 0.4;
const BORDERS: Readonly<Record<string, Pick<BorderSide, 'style' | 'width'>>> = {
  thin: { style: 'solid', width: 1 },
  thick: { style: 'solid', width: 3 },
  solid: { style: 'solid', width: 2 },
  dashed: { style: 'dashed', width: 2 },
  dotted: { style: 'dotted', width: 2 },
  double: { style: 'double', width: 3 },
};
const BORDER_COLOR = '#333333';

interface Word {
  readonly word: string;
  /** Where it ends in the text. */
  readonly end: number;
  /** True where a comma stands before it. */
  readonly isListed: boolean;
}

/** A part of a look: what it sets, or a colour of which it is not said what has it. */
interface LookItem {
  readonly look?: Look;
  readonly bare?: Hex;
  /** The words that it takes. */
  readonly words: number;
}

/**
 * A look in words at the start of a text, and how many letters it takes: "bold red on gold" is text on a fill, "yellow"
 * a fill, "bold red" a text, "gold fading to white" a gradient, "a dashed red border" a border. Colours go by their
 * names in CSS Color 4, or as #rrggbb. Undefined where none stands there.
 */
export function readLook(text: string): { readonly look: Look; readonly length: number } | undefined {
  const words = wordsOf(text);
  let look: Look = {};
  let bare: Hex | undefined;
  let isStyled = false;
  let length: number | undefined;
  for (let at = 0; at < words.length;) {
    let start = at;
    while (CONNECTORS.has(words[start]?.word ?? '')) start++;
    const item = readItem(words, start);
    const isColour = item?.bare !== undefined;
    // A second colour, or one after a comma, belongs to what comes next.
    if (!item || (isColour && (bare !== undefined || (length !== undefined && words[start]?.isListed)))) break;
    if (isColour) isStyled = Object.keys(look).length > 0;
    bare ??= item.bare;
    look = { ...look, ...item.look };
    at = start + item.words;
    length = words[at - 1]?.end;
  }
  if (length === undefined) return undefined;
  return { look: bare === undefined ? look : { ...look, ...coloursOf(bare, look, isStyled) }, length };
}

/** A colour alone is a fill, with text that can be read on it; on a fill or after a style it is that of the text. */
const coloursOf = (bare: Hex, { fill, text }: Look, isStyled: boolean): Look =>
  fill !== undefined || isStyled ? { text: text ?? bare } : { fill: bare, text: text ?? readableText(bare) };

const wordsOf = (text: string): Word[] =>
  [...text.matchAll(/([,;]?)\s*([^\s,;]+)/gu)].map((match) => ({
    word: match[2]!.toLowerCase(),
    end: match.index + match[0].length,
    isListed: match[1] !== '',
  }));

function readItem(words: readonly Word[], at: number): LookItem | undefined {
  const word = words[at]?.word;
  if (word === undefined) return undefined;
  if (hasKey(STYLES, word)) return { look: STYLES[word], words: 1 };
  const border = readBorder(words, at);
  if (border) return border;
  if (word === 'on') {
    const fill = readFill(words, at + 1);
    return (
      fill && {
        look: { fill: fill.fill },
        words: fill.words + 1 + (isNoun(words, at + 1 + fill.words, FILL_NOUNS) ? 1 : 0),
      }
    );
  }
  const colour = hexOf(word);
  if (colour !== undefined && isNoun(words, at + 1, TEXT_NOUNS)) return { look: { text: colour }, words: 2 };
  const fill = readFill(words, at);
  if (!fill) return undefined;
  if (isNoun(words, at + fill.words, FILL_NOUNS)) return { look: { fill: fill.fill }, words: fill.words + 1 };
  return typeof fill.fill === 'string'
    ? { bare: fill.fill, words: fill.words }
    : { look: { fill: fill.fill }, words: fill.words };
}

const isNoun = (words: readonly Word[], at: number, nouns: ReadonlySet<string>): boolean =>
  nouns.has(words[at]?.word ?? '') && !words[at]?.isListed;

/** "gold", "translucent gold", "gold fading to white", "fading gold", "gradient from gold to white". */
function readFill(words: readonly Word[], at: number): { readonly fill: Fill; readonly words: number } | undefined {
  const wordAt = (place: number): string => words[at + place]?.word ?? '';
  const colourAt = (place: number): Hex | undefined => hexOf(words[at + place]?.word);
  const first = colourAt(0);
  if (TRANSLUCENT.has(wordAt(0))) {
    const colour = colourAt(1);
    return colour === undefined ? undefined : { fill: { color: colour, opacity: OPACITY }, words: 2 };
  }
  if (wordAt(0) === 'fading') {
    const colour = colourAt(1);
    return colour === undefined ? undefined : { fill: { from: colour, to: '#ffffff' }, words: 2 };
  }
  const [from, to, count] =
    wordAt(0) === 'gradient' && wordAt(1) === 'from' && wordAt(3) === 'to'
      ? [colourAt(2), colourAt(4), 5]
      : wordAt(1) === 'fading' && wordAt(2) === 'to'
        ? [first, colourAt(3), 4]
        : [first, undefined, 1];
  if (from === undefined) return undefined;
  return { fill: to === undefined ? from : { from, to }, words: to === undefined ? 1 : count };
}

/** "border", "red border", "dashed red border". */
function readBorder(words: readonly Word[], at: number): LookItem | undefined {
  const style = BORDERS[words[at]?.word ?? ''];
  let next = style ? at + 1 : at;
  const colour = hexOf(words[next]?.word);
  if (colour !== undefined) next++;
  if (!BORDER_NOUNS.has(words[next]?.word ?? '')) return undefined;
  const around: BorderSide = { ...(style ?? BORDERS.solid!), color: colour ?? BORDER_COLOR };
  return { look: { border: { around } }, words: next + 1 - at };
}

function hexOf(name: string | undefined): Hex | undefined {
  if (name === undefined || !/^([a-z]{3,20}|#[0-9a-f]{6})$/.test(name)) return undefined;
  return name === 'transparent' ? undefined : color(name)?.formatHex();
}

/** The colour that stands at the start of a text, by its name or as #rrggbb, and how many letters it takes. */
export function readColour(text: string): { readonly hex: Hex; readonly length: number } | undefined {
  const word = /^[^\s,;]+/u.exec(text)?.[0];
  const hex = hexOf(word?.toLowerCase());
  return word === undefined || hex === undefined ? undefined : { hex, length: word.length };
}
