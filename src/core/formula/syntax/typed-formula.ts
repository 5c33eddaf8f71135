import { itemAt } from '../../values/item-at';
import { columnLetters, columnNumber, parseRanges, type CellRange } from '../../sheet/address';
import type { NamedRange } from '../../sheet/sheet-part';
import { foldText } from '../../values/fold-text';
import type { CellRef, Coordinate, FullCellRef, TextSpan } from './formula-tree';
import { isFormulaInput } from '../../values/is-formula-input';
import { lexFormula, type Token } from './lex-formula';

/** The meanings of words of a formula in a sheet. */
export interface Surroundings {
  /** Labels of the fields, in their order. */
  readonly labels: readonly string[];
  readonly names: readonly NamedRange[];
  readonly rowCount: number;
  /** The first row beneath the header. */
  readonly firstRecord: number;
}

/** A reference as it stands in a formula that is being typed, and the cells that it reads. */
export interface TypedReference extends TextSpan {
  readonly area: CellRange;
}

/** The references to cells of this sheet in a formula, as far as it can be read, in the order in which they stand. */
export function referencesIn(text: string, sheet: Surroundings): TypedReference[] {
  const { tokens } = lexFormula(text);
  const found: TypedReference[] = [];
  for (let at = 0; at < tokens.length; at++) {
    const token = itemAt(tokens, at);
    if (isElsewhere(tokens, at) || isCalled(tokens, at)) continue;
    const end = endOfRange(tokens, at);
    const area = areaOf(token, end ?? token, sheet);
    if (area) found.push({ from: token.from, to: (end ?? token).to, area });
    if (end) at += 2;
  }
  return found;
}

/** True where the next thing after a position can be a reference: then pointing at a cell puts one there. */
export function wantsReference(text: string, caret: number): boolean {
  if (!isFormulaInput(text) || caret < 1) return false;
  const { tokens } = lexFormula(text);
  const before = tokens.findLast((token) => token.to <= caret && token.kind !== 'end');
  const after = tokens.find((token) => token.to > caret);
  if (after && after.kind !== 'end' && (after.from < caret || !isSign(after, CLOSING))) return false;
  return !before || isSign(before, OPENING);
}

/** The word that ends at a position and may be completed: a function, a label or a name; in quotes, a label. */
export function wordBefore(
  text: string,
  caret: number,
): { readonly from: number; readonly word: string; readonly isQuoted: boolean } | null {
  if (!isFormulaInput(text)) return null;
  const before = text.slice(0, caret);
  const quoted = /^=(?:[^"']|"[^"]*"|'[^']*')*'([^']*)$/.exec(before);
  const [, begun = ''] = quoted ?? [];
  if (quoted) return { from: caret - begun.length - 1, word: begun, isQuoted: true };
  const word = /(?<![\p{L}\p{N}_$."])[\p{L}_][\p{L}\p{N}_]*$/u.exec(before)?.[0];
  const isInText = /^=(?:[^"]|"[^"]*")*"[^"]*$/.test(before);
  return word === undefined || isInText ? null : { from: caret - word.length, word, isQuoted: false };
}

/**
 * Steps the reference at a position through its anchorings: A1, $A$1, A$1, $A1, and A1 again; of a range both corners
 * alike.
 */
export function stepAnchors(text: string, caret: number): (TextSpan & { readonly insert: string }) | null {
  const { tokens } = lexFormula(text);
  for (let at = 0; at < tokens.length; at++) {
    const token = itemAt(tokens, at);
    const end = endOfRange(tokens, at);
    const to = (end ?? token).to;
    if (token.kind === 'cell' && token.from <= caret && caret <= to) {
      const [column, row] = nextAnchors(token.ref);
      const written = [token, ...(end?.kind === 'cell' ? [end] : [])].map(({ ref }) => writeRef(ref, column, row));
      return { from: token.from, to, insert: written.join(':') };
    }
    if (end) at += 2;
  }
  return null;
}

/** Tokens that may stand before a reference, and right after one. */
const OPENING = new Set(['=', '<>', '<', '<=', '>', '>=', '+', '-', '*', '/', '^', '&', '(', ';', ',', ':', '!', '~']);
const CLOSING = new Set([')', ';', ',']);

const isSign = (token: Token, signs: ReadonlySet<string>): boolean => token.kind === 'sign' && signs.has(token.sign);

/** True for what belongs to a sheet named before it. */
function isElsewhere(tokens: readonly Token[], at: number): boolean {
  const [before, next] = [tokens[at - 1], tokens[at + 1]];
  return (before !== undefined && isSign(before, DOT)) || (next !== undefined && isSign(next, DOT));
}
const DOT = new Set(['.']);

const isCalled = (tokens: readonly Token[], at: number): boolean => {
  const next = tokens[at + 1];
  return itemAt(tokens, at).kind === 'word' && next?.kind === 'sign' && next.sign === '(';
};

/** The other corner, where a range begins at a token: `B4` `:` `C9`, or `B` `:` `B`. */
function endOfRange(tokens: readonly Token[], at: number): Token | undefined {
  const [from, colon, to] = [itemAt(tokens, at), tokens[at + 1], tokens[at + 2]];
  if (colon?.kind !== 'sign' || colon.sign !== ':' || !to) return undefined;
  const isCell = from.kind === 'cell' && to.kind === 'cell';
  const isWhole = halfOf(from) !== undefined && halfOf(to) !== undefined;
  return isCell || isWhole ? to : undefined;
}

/** A whole column or row as one end of a range. */
function halfOf(token: Token): CellRef | undefined {
  if (token.kind === 'half') return token.ref;
  if (token.kind === 'number' && /^[1-9]\d*$/.test(token.text))
    return { column: null, row: { at: token.value - 1, absolute: false } };
  const isColumn = token.kind === 'word' && /^[A-Za-z]{1,3}$/.test(token.word);
  return isColumn ? { column: { at: columnNumber(token.word), absolute: false }, row: null } : undefined;
}

function areaOf(from: Token, to: Token, sheet: Surroundings): CellRange | undefined {
  if (from.kind === 'cell' && to.kind === 'cell') return between(from.ref, to.ref, sheet);
  const whole = from === to ? undefined : [halfOf(from), halfOf(to)];
  if (whole?.[0] && whole[1]) return between(whole[0], whole[1], sheet);
  if (from.kind !== 'word' && from.kind !== 'quoted') return undefined;
  const word = foldText(from.kind === 'word' ? from.word : from.name);
  const named = from.kind === 'word' ? sheet.names.find(({ name }) => foldText(name) === word) : undefined;
  if (named) return parseRanges(named.refersTo.replace(/^=/, '').replaceAll('$', ''))?.[0];
  const column = sheet.labels.findIndex((label) => foldText(label) === word);
  return column < 0
    ? undefined
    : { left: column, right: column, top: sheet.firstRecord, bottom: Math.max(0, sheet.rowCount - 1) };
}

function between(one: CellRef, other: CellRef, { labels, rowCount }: Surroundings): CellRange {
  const [left, right] = ordered(one.column, other.column, labels.length);
  const [top, bottom] = ordered(one.row, other.row, rowCount);
  return { left, right, top, bottom };
}

const ordered = (one: Coordinate | null, other: Coordinate | null, count: number): [number, number] =>
  one && other ? [Math.min(one.at, other.at), Math.max(one.at, other.at)] : [0, Math.max(0, count - 1)];

function nextAnchors({ column, row }: FullCellRef): [column: boolean, row: boolean] {
  if (column.absolute) return row.absolute ? [false, true] : [false, false];
  return row.absolute ? [true, false] : [true, true];
}

const writeRef = ({ column, row }: FullCellRef, fixesColumn: boolean, fixesRow: boolean): string =>
  `${fixesColumn ? '$' : ''}${columnLetters(column.at)}${fixesRow ? '$' : ''}${row.at + 1}`;
