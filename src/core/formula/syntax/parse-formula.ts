import { itemAt, lastItem } from '../../values/item-at';
import type {
  BinaryOperator,
  CellRef,
  Diagnostic,
  FormulaNode,
  KeptRef,
  ReferenceNode,
  TextSpan,
} from './formula-tree';
import { columnNumber } from '../../sheet/address';
import { lexFormula, type Token } from './lex-formula';

/** Limits of one formula: characters, and parts nested in one another. */
const MAX_FORMULA_LENGTH = 8192;
const DEEPEST_FORMULA = 64;
/** Operators in one formula: each may stand inside the next, and what follows the tree goes as deep. */
const MAX_OPERATORS = 1000;

export interface ParsedFormula {
  readonly tree: FormulaNode;
  /** Empty where the formula can be used. */
  readonly diagnostics: readonly Diagnostic[];
}

/** Binary operators below the reference operators, loosest first. All group from the left. */
const LEVELS: readonly (readonly BinaryOperator[])[] = [
  ['=', '<>', '<', '<=', '>', '>='],
  ['&'],
  ['+', '-'],
  ['*', '/'],
  ['^'],
];

/**
 * Reads a formula of the language of ISO/IEC 26300, part 4 (OpenFormula). Always gives a tree; what cannot be read is a
 * `missing` node with a diagnostic that says at which character something else was expected.
 */
export function parseFormula(text: string): ParsedFormula {
  const length = lengthAsTyped(text);
  if (length > MAX_FORMULA_LENGTH) {
    const message = `the formula has ${length} characters; at most ${MAX_FORMULA_LENGTH} are read`;
    return unread(text, { code: 'too-long', from: MAX_FORMULA_LENGTH, to: text.length, message });
  }
  const { tokens, diagnostic } = lexFormula(text);
  try {
    const tree = new Parser(tokens).whole();
    return diagnostic ? unread(text, diagnostic) : { tree, diagnostics: [] };
  } catch (error) {
    if (!(error instanceof Stop)) throw error;
    return unread(text, diagnostic && diagnostic.from <= error.diagnostic.from ? diagnostic : error.diagnostic);
  }
}

/** References that a sheet keeps are longer than what was typed for them; each counts as two characters. */
const lengthAsTyped = (text: string): number =>
  text.includes('⟦') ? text.replace(/⟦[^⟧]*⟧/g, 'A1').length : text.length;

const unread = (text: string, diagnostic: Diagnostic): ParsedFormula => ({
  tree: { kind: 'missing', from: 0, to: text.length },
  diagnostics: [diagnostic],
});

class Stop extends Error {
  constructor(readonly diagnostic: Diagnostic) {
    super(diagnostic.message);
  }
}

class Parser {
  private at = 0;
  private depth = 0;
  private operators = 0;

  constructor(private readonly tokens: readonly Token[]) {}

  whole(): FormulaNode {
    const tree = this.expression();
    if (this.next.kind !== 'end') this.stop('the end of the formula');
    return tree;
  }

  private get next(): Token {
    return itemAt(this.tokens, this.at);
  }

  private take(): Token {
    return itemAt(this.tokens, this.at++);
  }

  private takeSign<S extends string>(...signs: readonly S[]): S | undefined {
    const { next } = this;
    if (next.kind !== 'sign' || !(signs as readonly string[]).includes(next.sign)) return undefined;
    this.at++;
    return next.sign as S;
  }

  private stop(expected: string): never {
    const { from, to, kind } = this.next;
    const message =
      kind === 'end'
        ? `expected ${expected} at the end, character ${from + 1}`
        : `expected ${expected} at character ${from + 1}`;
    throw new Stop({ code: 'unexpected', from, to, message });
  }

  private nested<T>(read: () => T): T {
    if (++this.depth > DEEPEST_FORMULA) {
      const { from, to } = this.next;
      const message = `parts are nested more than ${DEEPEST_FORMULA} deep at character ${from + 1}`;
      throw new Stop({ code: 'too-deep', from, to, message });
    }
    const result = read();
    this.depth--;
    return result;
  }

  private countOperator(): void {
    if (++this.operators <= MAX_OPERATORS) return;
    const { from, to } = this.next;
    throw new Stop({
      code: 'too-deep',
      from,
      to,
      message: `there are more than ${MAX_OPERATORS} operators, at character ${from + 1}`,
    });
  }

  private expression(level = 0): FormulaNode {
    const operators = LEVELS[level];
    if (!operators) return this.percents();
    let left = this.expression(level + 1);
    for (let operator = this.takeSign(...operators); operator; operator = this.takeSign(...operators)) {
      this.countOperator();
      const right = this.expression(level + 1);
      left = { kind: 'binary', operator, left, right, from: left.from, to: right.to };
    }
    return left;
  }

  private percents(): FormulaNode {
    let operand = this.prefixed();
    for (; this.next.kind === 'sign' && this.next.sign === '%'; this.countOperator())
      operand = { kind: 'percent', operand, from: operand.from, to: this.take().to };
    return operand;
  }

  private prefixed(): FormulaNode {
    const { from } = this.next;
    const operator = this.takeSign('-', '+');
    if (!operator) return this.reference();
    const operand = this.nested(() => this.prefixed());
    return { kind: 'prefix', operator, operand, from, to: operand.to };
  }

  /** Primaries joined by range, intersection and union, which bind in this order. */
  private reference(operators: readonly BinaryOperator[] = ['~', '!', ':']): FormulaNode {
    const [operator, ...tighter] = operators;
    if (!operator) return this.primary();
    let left = this.reference(tighter);
    while (this.takeSign(operator)) {
      this.countOperator();
      const right = this.reference(tighter);
      left = { kind: 'binary', operator, left, right, from: left.from, to: right.to };
    }
    return left;
  }

  private primary(): FormulaNode {
    const range = this.range();
    if (range) return range;
    const token = this.next;
    switch (token.kind) {
      case 'number':
      case 'text':
      case 'error': {
        this.at++;
        if (token.kind === 'number') return { kind: 'number', value: token.value, from: token.from, to: token.to };
        return token;
      }
      case 'kept':
        this.at++;
        return this.kept(token.ref, token);
      case 'word':
        return this.word(token.word);
      case 'quoted':
        this.at++;
        return { kind: 'name', name: token.name, quoted: true, from: token.from, to: token.to };
      case 'sign':
        if (this.takeSign('(')) {
          const inner = this.nested(() => this.expression());
          return { kind: 'group', inner, from: token.from, to: this.close(')') };
        }
        if (this.takeSign('{')) return this.array(token.from);
        if (this.takeSign('[')) return this.bracketed(token.from);
        return this.stop('a value');
      default:
        return this.stop('a value');
    }
  }

  private close(sign: ')' | '}' | ']'): number {
    const { to } = this.next;
    if (!this.takeSign(sign)) this.stop(`\`${sign}\``);
    return to;
  }

  private word(word: string): FormulaNode {
    const { from, to } = this.take();
    if (this.takeSign('(')) return this.call(word, from);
    const upper = word.toUpperCase();
    if (upper === 'TRUE' || upper === 'FALSE') return { kind: 'logical', value: upper === 'TRUE', from, to };
    return { kind: 'name', name: word, quoted: false, from, to };
  }

  private call(word: string, from: number): FormulaNode {
    const args: FormulaNode[] = [];
    const empty = this.next;
    if (!(empty.kind === 'sign' && empty.sign === ')')) {
      do args.push(this.nested(() => this.argument()));
      while (this.takeSign(';', ','));
    }
    return { kind: 'call', name: word.toUpperCase(), args, from, to: this.close(')') };
  }

  private argument(): FormulaNode {
    const { next } = this;
    if (next.kind === 'sign' && [';', ',', ')'].includes(next.sign))
      return { kind: 'missing', from: next.from, to: next.from };
    return this.expression();
  }

  /** An inline array: `;` between columns, `|` between rows, only constants inside. */
  private array(from: number): FormulaNode {
    const rows: FormulaNode[][] = [[]];
    do {
      lastItem(rows).push(this.constant());
      const separator = this.takeSign(';', '|');
      if (!separator) break;
      if (separator === '|') rows.push([]);
    } while (this.next.kind !== 'end');
    const ragged = rows.some((row) => row.length !== itemAt(rows, 0).length);
    if (ragged) this.stop(`${itemAt(rows, 0).length} values in each row of the array`);
    return { kind: 'array', rows, from, to: this.close('}') };
  }

  private constant(): FormulaNode {
    const { from } = this.next;
    const operator = this.takeSign('-', '+');
    const token = this.next;
    if (operator && token.kind !== 'number') this.stop('a number');
    const value = this.nested(() => this.primary());
    if (value.kind !== 'number' && value.kind !== 'text' && value.kind !== 'logical' && value.kind !== 'error') {
      this.at--;
      this.stop('a number, text or logical');
    }
    return operator ? { kind: 'prefix', operator, operand: value, from, to: value.to } : value;
  }

  /** A cell or range as written plainly, with the sheet it is on; undefined where none begins here. */
  private range(): ReferenceNode | undefined {
    const begin = this.at;
    const { from } = this.next;
    const sheet = this.sheetName();
    const ends = this.corners(sheet !== null);
    if (ends) return { kind: 'reference', sheet, ends, from, to: itemAt(this.tokens, this.at - 1).to };
    this.at = begin;
    if (this.next.kind === 'half') this.stop('`:` and the other end of the range after this');
    return undefined;
  }

  /**
   * One corner, or two of the same form. A cell may also be joined to something else by the range operator: then it
   * stands alone.
   */
  private corners(onSheet: boolean): (CellRef | KeptRef)[] | undefined {
    const first = this.corner();
    if (!first) return undefined;
    const alone = this.at;
    if (this.takeSign(':')) {
      if (onSheet) this.takeSign('.');
      const { next } = this;
      if (next.kind === 'kept' && first.column && first.row) {
        this.at++;
        return [first, next.ref];
      }
      const second = this.corner();
      const isLike =
        second &&
        (second.column === null) === (first.column === null) &&
        (second.row === null) === (first.row === null);
      if (isLike) return [first, second];
    }
    this.at = alone;
    return first.column && first.row ? [first] : undefined;
  }

  /** A reference as a sheet keeps it. */
  private kept(first: KeptRef, { from, to }: TextSpan): ReferenceNode {
    const second = this.tokens[this.at + 1];
    if ((second?.kind !== 'kept' && second?.kind !== 'cell') || !this.takeSign(':'))
      return { kind: 'reference', sheet: null, ends: [first], from, to };
    this.at++;
    return { kind: 'reference', sheet: null, ends: [first, second.ref], from, to: second.to };
  }

  private sheetName(): string | null {
    const begin = this.at;
    this.takeSign('$');
    const token = this.next;
    const name = token.kind === 'quoted' ? token.name : token.kind === 'word' ? token.word : undefined;
    if (name !== undefined) {
      this.at++;
      if (this.takeSign('.')) return name;
    }
    this.at = begin;
    return null;
  }

  /** A corner of a range: a cell, or the column or row of a range without ends. */
  private corner(): CellRef | undefined {
    const token = this.next;
    const ref =
      token.kind === 'cell' || token.kind === 'half'
        ? token.ref
        : token.kind === 'word' && /^[A-Za-z]{1,3}$/.test(token.word)
          ? { column: { at: columnNumber(token.word), absolute: false }, row: null }
          : token.kind === 'number' && /^[1-9]\d{0,6}$/.test(token.text)
            ? { column: null, row: { at: token.value - 1, absolute: false } }
            : undefined;
    if (ref) this.at++;
    return ref;
  }

  /** The standard's bracketed form: `[.B4]`, `[.B4:.C9]`, `[$'Sampling kit'.B4]`. */
  private bracketed(from: number): ReferenceNode {
    const sheet = this.bracketedSheet();
    const ends: CellRef[] = [];
    do {
      if (ends.length) this.bracketedSheet();
      const corner = this.corner();
      if (!corner) this.stop('a cell');
      ends.push(corner);
    } while (ends.length < 2 && this.takeSign(':'));
    return { kind: 'reference', sheet, ends, from, to: this.close(']') };
  }

  private bracketedSheet(): string | null {
    const sheet = this.sheetName();
    if (sheet !== null || this.takeSign('.')) return sheet;
    // Many write the label of a field in brackets.
    const { from, to } = this.next;
    const message = `a field has no brackets: write Oxygen, or 'Dissolved oxygen' with a space; a cell in them is [.A1]`;
    throw new Stop({ code: 'unexpected', from, to, message });
  }
}
