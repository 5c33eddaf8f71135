import { itemAt } from '../../values/item-at';
import { standardErrorWord } from '../../values/cell-value';
import type { FormulaNode, ReferenceNode } from '../../formula/syntax/formula-tree';
import { isKept } from '../../formula/syntax/formula-tree';
import { cornerText, printFormula, type FormulaDialect } from '../../formula/syntax/print-formula';

/*
 * The formulas of ISO/IEC 29500-1, 18.17, and ours (ISO/IEC 26300) differ in signs, not in meaning: arguments are
 * divided by `,` there, columns and rows of arrays by `,` and `;`, a sheet is named by `Sheet!`, intersection is a
 * space and union a comma.
 */
const TOKEN =
  /("(?:[^"]|"")*")|('(?:[^']|'')*'!|[\p{L}_][\p{L}\p{N}_.]*!)|(#(?:N\/A|DIV\/0!|VALUE!|REF!|NAME\?|NUM!|NULL!))|([\p{L}_$\\][\p{L}\p{N}_.$\\]*)|(\s+)|([\s\S])/gu;
/** The prefix of newer functions in files, and the mark of a parameter. */
const FUTURE = /^_xl(?:fn|ws|pm)\./i;
const REFERENCE = /^\$?[A-Z]{1,3}\$?\d+$|^\$?\d+$/i;

/**
 * A formula as such a file holds it, without its `=`, as ours; undefined where it uses unsupported parts: other files,
 * tables, spilled results.
 */
export function fromOoxmlFormula(text: string, ownSheet: string): string | undefined {
  let out = '=';
  const open: ('call' | 'group' | 'array')[] = [];
  let last = '';
  const tokens = [...text.replace(/^=/, '').matchAll(TOKEN)];
  for (const [at, [token, string, sheet, error, word, space]] of tokens.entries()) {
    if (string !== undefined || error !== undefined) out += token;
    else if (sheet !== undefined) {
      const name = sheet.slice(0, -1).replace(/^'|'$/g, '').replaceAll("''", "'");
      if (name.includes('[')) return undefined;
      if (name.toLowerCase() !== ownSheet.toLowerCase()) out += `$'${name.replaceAll("'", "''")}'.`;
    } else if (word !== undefined) out += word.replace(FUTURE, '').replace(FUTURE, '');
    else if (space !== undefined) {
      const next = tokens[at + 1];
      const isBetween =
        (/[\w$)]$/.test(last) || last.endsWith('!')) &&
        next !== undefined &&
        (next[4] !== undefined ? REFERENCE.test(next[4]) && REFERENCE.test(last) : false);
      out += isBetween ? '!' : ' ';
    } else if (token === '{') {
      open.push('array');
      out += token;
    } else if (token === '(') {
      open.push(/[\p{L}\p{N}_.]$/u.test(last) ? 'call' : 'group');
      out += token;
    } else if (token === '}' || token === ')') {
      open.pop();
      out += token;
    } else if (token === ',') out += open.at(-1) === 'array' ? ';' : open.at(-1) === 'group' ? '~' : ';';
    else if (token === ';' && open.at(-1) === 'array') out += '|';
    else if (token === '[' || token === '@' || token === '#') return undefined;
    else out += token;
    if (space === undefined) last = token;
  }
  return out;
}

/** Functions that came after the standard: its readers know them by this beginning. */
const LATER = new Set(['XOR', 'IFNA', 'TEXTJOIN', 'ISOWEEKNUM', 'DAYS']);
const FUTURE_BEGIN = '_xlfn.';

/** A formula of ours, its references plain, as such a file holds it: without its `=`. */
export const toOoxmlFormula = (tree: FormulaNode): string => printFormula(tree, DIALECT).slice(1);

const isUnion = (node: FormulaNode): boolean => node.kind === 'binary' && node.operator === '~';

function referenceText({ sheet, ends }: ReferenceNode): string {
  const corners = ends.map((end) => (isKept(end) ? '#REF!' : cornerText(end)));
  // A whole column or row has two ends there.
  const only = itemAt(ends, 0);
  if (corners.length === 1 && !isKept(only) && (!only.column || !only.row)) corners.push(itemAt(corners, 0));
  return (sheet === null ? '' : `'${sheet.replaceAll("'", "''")}'!`) + corners.join(':');
}

const DIALECT: Partial<FormulaDialect> = {
  reference: referenceText,
  name: ({ name }) => name,
  error: standardErrorWord,
  operator: (operator) => (operator === '!' ? ' ' : operator === '~' ? ',' : operator),
  called: (name) => (LATER.has(name) ? FUTURE_BEGIN + name : name),
  argument: (node, text) => (isUnion(node) ? `(${text})` : text),
  betweenArguments: ',',
  betweenColumns: ',',
  betweenRows: ';',
};
