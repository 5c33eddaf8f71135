import { lastItem } from '../../values/item-at';
import type { FunctionSpec } from '../functions/function-spec';
import { FUNCTIONS } from '../functions/function-table';
import { lexFormula } from '../syntax/lex-formula';

/** The innermost call around a position, and which of its arguments stands there, counted from 0. */
export function callAround(
  text: string,
  caret: number,
): { readonly spec: FunctionSpec; readonly argument: number } | null {
  const open: { name: string; argument: number }[] = [];
  const { tokens } = lexFormula(text);
  for (const [at, token] of tokens.entries()) {
    if (token.to > caret || token.kind === 'end') break;
    if (token.kind !== 'sign') continue;
    const called = tokens[at - 1];
    if (token.sign === '(') open.push({ name: called?.kind === 'word' ? called.word.toUpperCase() : '', argument: 0 });
    else if (token.sign === '{') open.push({ name: '', argument: 0 });
    else if (token.sign === ')' || token.sign === '}') open.pop();
    else if ((token.sign === ';' || token.sign === ',') && open.length) lastItem(open).argument++;
  }
  const inner = open.findLast(({ name }) => FUNCTIONS.has(name));
  return inner ? { spec: FUNCTIONS.get(inner.name)!, argument: inner.argument } : null;
}
