import { color } from 'd3-color';
import { hasKey } from '../../../values/typed-keys';
import type { Hex, Look } from '../../../looks/look';
import { readableText } from '../../../looks/readable-text';

/** Words for a style beside its colours. */
const STYLES = {
  bold: { bold: true },
  italic: { italic: true },
  underlined: { underline: true },
  underline: { underline: true },
  struck: { strike: true },
  strikethrough: { strike: true },
} as const;

/**
 * A look in words at the start of a text, and how many letters it takes: "bold red on gold" is text on a fill, "yellow"
 * a fill, "bold red" a text. Colours go by their names in CSS Color 4, or as #rrggbb. Undefined where none stands there.
 */
export function readLook(text: string): { readonly look: Look; readonly length: number } | undefined {
  const words = [...text.matchAll(/[^\s,]+/gu)].map((match) => ({
    word: match[0].toLowerCase(),
    end: match.index + match[0].length,
  }));
  let look: Look = {};
  let at = 0;
  for (; at < words.length; at++) {
    const { word } = words[at]!;
    if (hasKey(STYLES, word)) look = { ...look, ...STYLES[word] };
    else if (word !== 'and') break;
  }
  const first = hexOf(words[at]?.word);
  if (first !== undefined) at++;
  const second = first !== undefined && words[at]?.word === 'on' ? hexOf(words[at + 1]?.word) : undefined;
  if (second !== undefined) at += 2;
  const end = words[at - 1]?.end;
  if (end === undefined) return undefined;
  return { look: { ...look, ...coloursOf(first, second, Object.keys(look).length > 0) }, length: end };
}

/** One colour is a fill, with text that can be read on it; beside a style it is that of the text. */
function coloursOf(first: Hex | undefined, on: Hex | undefined, isStyled: boolean): Look {
  if (first === undefined) return {};
  if (on !== undefined) return { text: first, fill: on };
  return isStyled ? { text: first } : { fill: first, text: readableText(first) };
}

function hexOf(name: string | undefined): Hex | undefined {
  if (name === undefined || !/^([a-z]{3,20}|#[0-9a-f]{6})$/.test(name)) return undefined;
  return name === 'transparent' ? undefined : color(name)?.formatHex();
}
