import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { BinaryOperator, FormulaNode } from './formula-tree';
import { parseFormula } from './parse-formula';
import { printFormula } from './print-formula';
import { shiftFormula } from './rewrite-references';

const reread = (text: string): string => {
  const { tree, diagnostics } = parseFormula(text);
  return diagnostics[0]?.message ?? printFormula(tree);
};

/** A tree with brackets round every operation, so that the groups that precedence makes can be seen. */
function grouped(node: FormulaNode): string {
  switch (node.kind) {
    case 'binary':
      return `(${grouped(node.left)} ${node.operator} ${grouped(node.right)})`;
    case 'prefix':
      return `(${node.operator}${grouped(node.operand)})`;
    case 'percent':
      return `(${grouped(node.operand)}%)`;
    case 'group':
      return grouped(node.inner);
    default:
      return printFormula(node).slice(1);
  }
}

// Precedence of ISO/IEC 26300-4, 5.5 (from memory): reference operators, prefix, percent, power, product, sum, text,
// comparison.
test.each([
  ['=-2^2', '((-2) ^ 2)'],
  ['=2^3^2', '((2 ^ 3) ^ 2)'],
  ['=-5%', '((-5)%)'],
  ['=1+2*3-4', '((1 + (2 * 3)) - 4)'],
  ['="a"&1+2="a3"', '(("a" & (1 + 2)) = "a3")'],
  ['=1<2<3', '((1 < 2) < 3)'],
  ['=A1:B2!B1:C3~D4', '((A1:B2 ! B1:C3) ~ D4)'],
  ['=B2:INDEX(A1:A9;2)', '(B2 : INDEX(A1:A9;2))'],
])('%s groups as %s', (text, groups) => expect(grouped(parseFormula(text).tree)).toBe(groups));

test.each([
  ['=SUM( B2:B9 , 4:4 ; $B:$D )', '=SUM(B2:B9;4:4;$B:$D)'],
  ["=$'Sampling kit'.B4:.C9 + Kit.B4", "=$'Sampling kit'.B4:C9+$'Kit'.B4"],
  ["=[.B4]+SUM([.B4:.C9];[$'S k'.A1])", "=B4+SUM(B4:C9;$'S k'.A1)"],
  ["=AVERAGE('It''s')+Turbidity", "=AVERAGE('It''s')+Turbidity"],
  ['={1;-2|"x";TRUE}', '={1;-2|"x";TRUE}'],
  ['=if(a1;;#N/A)', '=IF(A1;;#N/A)'],
  ['=log10(5)', '=LOG10(5)'],
  ['=.5e3', '=500'],
])('%s is read as %s', (text, printed) => expect(reread(text)).toBe(printed));

describe('says where something else was expected', () => {
  test.each([
    ['=SUM(1;2', 'expected `)` at the end, character 9'],
    ['=1+', 'expected a value at the end, character 4'],
    ['=A1 B1', 'expected the end of the formula at character 5'],
    ['=(1+2', 'expected `)` at the end, character 6'],
    ['="abc', 'the text that begins at character 2 is never closed'],
    ['=1 # 2', '"#" at character 4 means nothing here'],
    ['={1,2}', 'expected `}` at character 4'],
    ['={1;2|3}', 'expected 2 values in each row of the array at character 8'],
    ['=$B', 'expected `:` and the other end of the range after this at character 2'],
    ['=', 'expected a value at the end, character 2'],
  ])('%s: %s', (text, message) => expect(reread(text)).toBe(message));

  test('in formulas that are too long, or nested too deep', () => {
    expect(reread(`=${'1+'.repeat(5000)}1`)).toMatch(/10002 characters; at most 8192/);
    expect(reread(`=${'('.repeat(65)}1${')'.repeat(65)}`)).toMatch(/more than 64 deep at character 67/);
    expect(reread(`=${'('.repeat(64)}1${')'.repeat(64)}`)).toMatch(/^=\(/);
  });
});

const coordinate = fc.record({ at: fc.integer({ min: 0, max: 700 }), absolute: fc.boolean() });
const cell = fc.record({ column: coordinate, row: coordinate });
const span = { from: 0, to: 0 };
const leaf: fc.Arbitrary<FormulaNode> = fc.oneof(
  fc
    .double({ min: 0, max: 1e9, noNaN: true })
    .map((value) => ({ ...span, kind: 'number' as const, value: Number(value.toPrecision(12)) })),
  fc.string().map((value) => ({ ...span, kind: 'text' as const, value })),
  fc.boolean().map((value) => ({ ...span, kind: 'logical' as const, value })),
  fc
    .record({
      sheet: fc.constantFrom(null, "Crew's kit"),
      ends: fc.oneof(
        cell.map((one) => [one]),
        fc.tuple(cell, cell),
      ),
    })
    .map((reference) => ({ ...span, kind: 'reference' as const, ...reference })),
  fc
    .constantFrom("Dissolved oxygen (it's)", 'pH')
    .map((name) => ({ ...span, kind: 'name' as const, name, quoted: true })),
);
const { node: anyTree } = fc.letrec<{ node: FormulaNode }>((tie) => ({
  node: fc.oneof(
    { maxDepth: 4, withCrossShrink: true },
    leaf,
    tie('node').map((inner): FormulaNode => ({ ...span, kind: 'group', inner })),
    fc.array(tie('node'), { maxLength: 3 }).map((args): FormulaNode => ({ ...span, kind: 'call', name: 'SUM', args })),
    fc
      .record({
        operator: fc.constantFrom<BinaryOperator>('+', '*', '^', '&', '<=', '<>'),
        left: tie('node'),
        right: tie('node'),
      })
      .map(({ operator, left, right }): FormulaNode => {
        const bracketed = (inner: FormulaNode): FormulaNode => ({ ...span, kind: 'group', inner });
        return { ...span, kind: 'binary', operator, left: bracketed(left), right: bracketed(right) };
      }),
  ),
}));
const withoutSpans = (tree: FormulaNode): unknown =>
  JSON.parse(JSON.stringify(tree, (key, value: unknown) => (key === 'from' || key === 'to' ? undefined : value)));

test('a tree that is printed and read is the same tree', () => {
  fc.assert(
    fc.property(anyTree, (tree) => {
      const { tree: read, diagnostics } = parseFormula(printFormula(tree));
      expect(diagnostics).toEqual([]);
      expect(withoutSpans(read)).toEqual(withoutSpans(tree));
    }),
    { numRuns: 1000 },
  );
});

test('no text makes the parser throw', () => {
  fc.assert(
    fc.property(
      fc.oneof(fc.string({ unit: 'grapheme' }), fc.stringMatching(/^=[A-C1-3$':;,.(){}|<>=+%&~!"# -]{0,40}$/)),
      (text) => {
        const { tree, diagnostics } = parseFormula(text);
        expect(tree.kind === 'missing').toBe(diagnostics.length > 0);
      },
    ),
    { numRuns: 3000 },
  );
});

test.each([
  ['=B2*$C$3+SUM(B$2:$B9)', [1, 2], '=C4*$C$3+SUM(C$2:$B11)'],
  ['=B2 + A1', [-1, 0], '=A2 + #REF!'],
  ['="B2"&B2', [0, -1], '="B2"&B1'],
  ['=B:B+2:2', [1, 1], '=C:C+3:3'],
  ['=B2+', [1, 1], '=B2+'],
] as const)('%s copied by %j is %s', (text, [columns, rows], shifted) =>
  expect(shiftFormula(text, columns, rows)).toBe(shifted),
);

test.each(['{', '(', '-', 'SUM(', 'IF(1;', '{1;'])(
  '“%s” a thousand times over is too deep, and no fault of the program',
  (piece) => {
    const { tree, diagnostics } = parseFormula(`=${piece.repeat(1000)}`);
    expect(tree).toBeDefined();
    expect(diagnostics).toHaveLength(1);
  },
);
