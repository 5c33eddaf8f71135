import { columnNumber } from '../../sheet/address';
import { ERROR_WORDS, type ErrorWord } from '../../values/cell-value';
import type { CellRef, Coordinate, Diagnostic, FullCellRef, KeptRef, TextSpan } from './formula-tree';

export type Token = TextSpan &
  (
    | { readonly kind: 'number'; readonly value: number; readonly text: string }
    | { readonly kind: 'text'; readonly value: string }
    | { readonly kind: 'error'; readonly word: ErrorWord }
    | { readonly kind: 'cell'; readonly ref: FullCellRef }
    | { readonly kind: 'kept'; readonly ref: KeptRef }
    /** `$B` or `$4`: a half of a whole column or row. */
    | { readonly kind: 'half'; readonly ref: CellRef }
    | { readonly kind: 'word'; readonly word: string }
    | { readonly kind: 'quoted'; readonly name: string }
    | { readonly kind: 'sign'; readonly sign: string }
    | { readonly kind: 'end' }
  );

const SPACE = /\p{White_Space}*/uy;
const NUMBER = /(?:\d+(?:\.\d*)?|\.\d+)(?:[eE][+-]?\d+)?/y;
const TEXT = /"((?:[^"]|"")*)"/y;
const QUOTED = /\$?'((?:[^']|'')+)'/y;
const CELL = /(\$?)([A-Za-z]{1,3})(\$?)([1-9]\d{0,6})(?![\p{L}\p{N}_.(])(?!\p{White_Space}*\()/uy;
const HALF_COLUMN = /\$([A-Za-z]{1,3})(?![\p{L}\p{N}_$])/uy;
const HALF_ROW = /\$([1-9]\d{0,6})(?![\p{L}\p{N}_$])/uy;
const WORD = /[\p{L}_][\p{L}\p{N}_]*/uy;
const SIGN = /<=|>=|<>|[-+*/^&=<>%:!~(){};,|[\].$]/y;
/** References as a sheet keeps them stand between these brackets, which nobody types: see kept-reference.ts. */
const KEPT = /⟦(\$?)([^$~⟧]*)(?:~(\$?)([^⟧]*))?⟧/y;

/**
 * Cuts a formula (with or without its `=`) into tokens; the first character that fits nowhere ends the list with a
 * diagnostic.
 */
export function lexFormula(text: string): { tokens: readonly Token[]; diagnostic: Diagnostic | null } {
  const tokens: Token[] = [];
  let at = /^=/.test(text) ? 1 : 0;
  for (;;) {
    at = skip(text, at);
    if (at >= text.length) break;
    const token = tokenAt(text, at);
    if (!token) return { tokens: [...tokens, { kind: 'end', from: at, to: at }], diagnostic: misfit(text, at) };
    tokens.push(token);
    at = token.to;
  }
  tokens.push({ kind: 'end', from: text.length, to: text.length });
  return { tokens, diagnostic: null };
}

function skip(text: string, at: number): number {
  SPACE.lastIndex = at;
  return at + (SPACE.exec(text)?.[0].length ?? 0);
}

function tokenAt(text: string, from: number): Token | undefined {
  const match = (pattern: RegExp): RegExpExecArray | null => {
    pattern.lastIndex = from;
    return pattern.exec(text);
  };
  const group = (found: RegExpExecArray): string => found[1] ?? '';
  const span = (found: RegExpExecArray): TextSpan => ({ from, to: from + found[0].length });
  let found: RegExpExecArray | null;
  if ((found = match(NUMBER))) return { kind: 'number', value: Number(found[0]), text: found[0], ...span(found) };
  if ((found = match(TEXT))) return { kind: 'text', value: group(found).replaceAll('""', '"'), ...span(found) };
  if ((found = match(QUOTED))) return { kind: 'quoted', name: group(found).replaceAll("''", "'"), ...span(found) };
  if ((found = match(KEPT))) return { kind: 'kept', ref: keptRef(found), ...span(found) };
  if ((found = match(CELL))) return { kind: 'cell', ref: cellRef(found), ...span(found) };
  if ((found = match(HALF_COLUMN)))
    return {
      kind: 'half',
      ref: { column: { at: columnNumber(group(found)), absolute: true }, row: null },
      ...span(found),
    };
  if ((found = match(HALF_ROW)))
    return { kind: 'half', ref: { column: null, row: { at: Number(found[1]) - 1, absolute: true } }, ...span(found) };
  if ((found = match(WORD))) return { kind: 'word', word: found[0], ...span(found) };
  const error = ERROR_WORDS.find((word) => text.slice(from, from + word.length).toUpperCase() === word);
  if (error) return { kind: 'error', word: error, from, to: from + error.length };
  if ((found = match(SIGN))) return { kind: 'sign', sign: found[0], ...span(found) };
  return undefined;
}

function cellRef([, columnMark, letters = '', rowMark, digits]: RegExpExecArray): FullCellRef {
  const row: Coordinate = { at: Number(digits) - 1, absolute: rowMark === '$' };
  return { column: { at: columnNumber(letters), absolute: columnMark === '$' }, row };
}

function keptRef([, fieldMark, name = '', rowMark, row]: RegExpExecArray): KeptRef {
  const field = name === '' ? null : { id: name, absolute: fieldMark === '$' };
  if (row === '*' || row === '@') return { field, row: row === '*' ? 'records' : 'same', isLabel: true };
  return {
    field,
    row: row === undefined ? 'same' : row === '' ? 'all' : { id: row, absolute: rowMark === '$' },
  };
}

function misfit(text: string, at: number): Diagnostic {
  const character = String.fromCodePoint(text.codePointAt(at) ?? 0);
  const message =
    character === '"'
      ? `the text that begins at character ${at + 1} is never closed`
      : `"${character}" at character ${at + 1} means nothing here`;
  return { code: 'unexpected', from: at, to: at + character.length, message };
}
