import { itemAt } from '../../values/item-at';
import { parseFormula } from '../../formula/syntax/parse-formula';
import { lookProperties, type Look } from '../../looks/look';
import type { Style } from '../../looks/style';
import { operandList, type Operand } from '../../rules/terms';
import type { RunningRule } from '../../rules/evaluate/running-rule';
import { columnLetters, parseAddress, type CellRange } from '../../sheet/address';
import type { Sheet } from '../../sheet/sheet';
import { numberText } from '../../values/number-text';
import type { RuleFate } from '../export-source';
import { lostOf, PLAINLY } from '../workbook/lost-words';
import { PREDICATE_NOTES, predicatesOf } from '../workbook/predicates';
import { reachOf } from '../workbook/reach-areas';
import { styleOfLook } from '../workbook/written-sheet';
import { toOdfFormula } from './formula-text';

/** A condition of a style, ISO/IEC 26300-1, 19.469, the cells that it is over, and the look that it gives. */
export interface WrittenCondition {
  readonly areas: readonly CellRange[];
  readonly condition: string;
  /** The cell for which its formulas are written. */
  readonly base: { readonly column: number; readonly position: number };
  readonly style: Style;
  readonly name: string;
}

export interface RuleConditions {
  readonly fate: RuleFate;
  readonly written: readonly WrittenCondition[];
}

/** A rule as conditions of styles: a comparison where the standard has it, else by formulas, else as none. */
export function conditionsOf(
  running: RunningRule,
  sheet: Sheet,
  saved: Readonly<Record<string, Look>>,
): RuleConditions {
  const { rule } = running;
  const reach = reachOf(running, sheet);
  if (!reach) return { fate: { name: rule.name, as: 'nothing', note: 'it reads no cells' }, written: [] };
  const isFixed = rule.paints !== 'cell';
  const areas = isFixed ? reach.painted : reach.read;
  const base = { column: itemAt(areas, 0).left, position: reach.top };
  const styleOf = (look: Look | null | undefined) => styleOfLook(look ? lookProperties(look, saved) : new Map());
  const plain = isFixed ? undefined : comparison(running);
  if (plain !== undefined) {
    const note = [lostOf(rule.look ?? {}), 'other programs may count text as greater than any number, and a blank as 0']
      .filter(Boolean)
      .join('; ');
    return {
      fate: { name: rule.name, as: 'rule', note },
      written: [{ areas, condition: plain, base, style: styleOf(rule.look), name: rule.name }],
    };
  }
  const predicates = predicatesOf({ rule, sheet, ...reach, at: base, isFixed });
  if (!predicates) return { fate: { name: rule.name, as: 'formatting', note: PLAINLY }, written: [] };
  const written = predicates.map(({ outcome, formula }) => ({
    areas,
    condition: `is-true-formula(${toOdfFormula(parseFormula(formula).tree).slice(1)})`,
    base,
    style: styleOf(running.look(outcome)),
    name: rule.name,
  }));
  const lost = [...new Set(predicates.map(({ outcome }) => lostOf(running.look(outcome) ?? {})).filter(Boolean))];
  const isOwn = rule.when.kind === 'formula' && !isFixed;
  const many = written.length > 1 ? [`${written.length} formulas, one for each look`] : [];
  return {
    fate: {
      name: rule.name,
      as: isOwn ? 'rule' : 'formula',
      note: [...many, PREDICATE_NOTES[rule.when.kind], ...lost].filter(Boolean).join('; '),
    },
    written,
  };
}

/** A comparison with constants and cells that stay; undefined where the rule is none. */
function comparison({ rule: { when } }: RunningRule): string | undefined {
  if (when.kind !== 'compare' || when.asShown || when.magnitude) return undefined;
  const sides = operandList(when.to).map(operandText);
  if (sides.some((side) => side === undefined)) return undefined;
  if (when.is === 'between') return `cell-content-is-between(${sides.join(',')})`;
  if (when.is === 'outside') return `cell-content-is-not-between(${sides.join(',')})`;
  return `cell-content()${when.is}${itemAt(sides, 0)}`;
}

function operandText(operand: Operand): string | undefined {
  if (typeof operand === 'number') return numberText(operand);
  // Dates in ISO form would be texts.
  if (typeof operand === 'string') return /^\d{4}-/.test(operand) ? undefined : `"${operand.replaceAll('"', '""')}"`;
  if (typeof operand === 'boolean') return operand ? 'TRUE()' : 'FALSE()';
  const at = 'cell' in operand ? parseAddress(operand.cell) : undefined;
  return at && `[.$${columnLetters(at.column)}$${at.position + 1}]`;
}
