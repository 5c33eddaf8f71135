import { standardErrorWord } from '../../values/cell-value';
import { isKept, type FormulaNode, type ReferenceNode } from '../../formula/syntax/formula-tree';
import { parseFormula } from '../../formula/syntax/parse-formula';
import { cornerText, printFormula, referenceText } from '../../formula/syntax/print-formula';
import { rewriteReferences } from '../../formula/syntax/rewrite-references';

/**
 * A formula as a document holds it (ISO/IEC 26300-1, 19.642) as ours, its references plain; undefined where it is in
 * another language than OpenFormula.
 */
export function fromOdfFormula(text: string, ownSheet: string): string | undefined {
  const formula = text.replace(/^of:/, '');
  if (!formula.startsWith('=')) return undefined;
  if (parseFormula(formula).diagnostics.length) return undefined;
  return rewriteReferences(formula, (node) =>
    referenceText(
      node.sheet !== null && node.sheet.toLowerCase() === ownSheet.toLowerCase() ? { ...node, sheet: null } : node,
    ),
  );
}

/** References in brackets, as files have them: `[.B4:.C9]`. */
function bracketed({ sheet, ends }: ReferenceNode): string {
  const name = sheet === null ? '' : `$'${sheet.replaceAll("'", "''")}'`;
  return `[${name}${ends.map((end) => (isKept(end) ? '.#REF!' : `.${cornerText(end)}`)).join(':')}]`;
}

/** A formula of ours, its references plain, as files have it, with its `=`. */
export const toOdfFormula = (tree: FormulaNode): string =>
  printFormula(tree, { reference: bracketed, error: standardErrorWord });
