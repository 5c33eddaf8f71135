import { itemAt } from '../../values/item-at';
import { parseFormula } from '../../formula/syntax/parse-formula';
import { type Look, type PlainLook, plainLook } from '../../looks/look';
import { plainTree } from '../../formula/resolve/plain-tree';
import { shiftFormula } from '../../formula/syntax/rewrite-references';
import { printFormula } from '../../formula/syntax/print-formula';
import { writtenFor } from '../../rules/move/follow-layout';
import type { When } from '../../rules/kinds/registry';
import type { Operand } from '../../rules/terms';
import type { RunningRule } from '../../rules/evaluate/running-rule';
import { cellAddress, parseAddress, writeArea, type CellRange } from '../../sheet/address';
import type { Sheet } from '../../sheet/sheet';
import { numberText } from '../../values/number-text';
import { lostOf, PLAINLY } from '../workbook/lost-words';
import { PREDICATE_NOTES, predicatesOf } from '../workbook/predicates';
import { reachOf, type Reach } from '../workbook/reach-areas';
import type { RuleFate } from '../export-source';
import { xml, type XmlAttributes } from '../xml/write-xml';
import { toOoxmlFormula } from './formula-text';
import { type ConditionContext, escaped, MAX_FORMULA_LENGTH, nativeOf } from './native-conditions';

/** The surroundings in which conditional formats are written. */
export interface ConditionsInto {
  readonly sheet: Sheet;
  /** Saved looks by id. */
  readonly saved: Readonly<Record<string, Look>>;
  /** The number of a look in the styles part. */
  readonly lookNumber: (look: PlainLook) => number;
}

/** One `cfRule` without its priority, and the cells that it is over. */
interface WrittenRule {
  readonly areas: readonly CellRange[];
  readonly attributes: XmlAttributes;
  readonly content: string;
}

/** The fate of a rule, and what is written of it: nothing where its cells are to be formatted plainly. */
export interface RuleConditions {
  readonly fate: RuleFate;
  readonly written: readonly WrittenRule[];
}

/** A rule as conditional formats: of its own kind where the standard has it, else by formulas, else as none. */
export function conditionsOf(running: RunningRule, into: ConditionsInto): RuleConditions {
  const { rule } = running;
  const { sheet } = into;
  const reach = reachOf(running, sheet);
  if (!reach) return { fate: { name: rule.name, as: 'nothing', note: 'it reads no cells' }, written: [] };
  const plain = (look: Look | null | undefined): PlainLook => (look ? plainLook(look, into.saved) : {});
  const dxf = (look: PlainLook): XmlAttributes => (Object.keys(look).length ? { dxfId: into.lookNumber(look) } : {});
  const stop: XmlAttributes = rule.settles ? { stopIfTrue: true } : {};
  const blocks = TOGETHER.has(rule.when.kind) ? [reach.read] : blocksOf(reach.read);
  const nativeBlocks = blocks.flatMap((areas) => {
    const native =
      rule.paints === 'cell' ? nativeOf({ rule, sheet, reach, ...formulasOf(running, sheet, areas) }) : undefined;
    return native ? [{ areas, native }] : [];
  });
  const native = nativeBlocks[0]?.native;
  if (native && nativeBlocks.length === blocks.length) {
    const look = native.isShaded ? {} : plain(rule.look);
    const note = [native.note, lostOf(look)].filter(Boolean).join('; ');
    return {
      fate: { name: rule.name, as: 'rule', note },
      written: nativeBlocks.map(({ areas, native: { attributes, content = '' } }) => ({
        areas,
        attributes: { ...attributes, ...dxf(look), ...stop },
        content,
      })),
    };
  }
  return conditionsByFormulas(running, { reach, blocks, plain, dxf, stop, sheet });
}

interface FormulaParts {
  readonly sheet: Sheet;
  readonly reach: Reach;
  readonly blocks: readonly (readonly CellRange[])[];
  readonly plain: (look: Look | null | undefined) => PlainLook;
  readonly dxf: (look: PlainLook) => XmlAttributes;
  readonly stop: XmlAttributes;
}

/** A rule as conditional formats by formulas, one for each look; as plain formatting where no formula can express it. */
function conditionsByFormulas(
  running: RunningRule,
  { sheet, reach, blocks, plain, dxf, stop }: FormulaParts,
): RuleConditions {
  const { rule } = running;
  const isFixed = rule.paints !== 'cell';
  const predicates = (isFixed ? [reach.painted] : blocks).map((areas) => {
    const at = { column: itemAt(areas, 0).left, position: itemAt(areas, 0).top };
    return predicatesOf({ rule, sheet, ...reach, at, isFixed })?.map((predicate) => ({ ...predicate, areas }));
  });
  const expressible = predicates.flatMap((each) => (each ? [each] : []));
  const formulas =
    expressible.length < predicates.length
      ? undefined
      : expressible.flatMap((each) =>
          each.map(({ outcome, formula, areas }) => ({
            outcome,
            areas,
            look: plain(running.look(outcome)),
            formula: toOoxmlFormula(parseFormula(formula).tree),
          })),
        );
  if (!formulas || formulas.some(({ formula }) => formula.length > MAX_FORMULA_LENGTH))
    return {
      fate: { name: rule.name, as: 'formatting', note: PLAINLY },
      written: [],
    };
  const outcomes = new Set(formulas.map(({ outcome }) => outcome)).size;
  const lost = [...new Set(formulas.map(({ look }) => lostOf(look)).filter(Boolean))];
  return {
    fate: {
      name: rule.name,
      as: 'formula',
      note: [
        ...(outcomes > 1 ? [`${outcomes} formulas, one for each look`] : []),
        PREDICATE_NOTES[rule.when.kind],
        ...lost,
      ]
        .filter(Boolean)
        .join('; '),
    },
    written: formulas.map(({ look, formula, areas }) => ({
      areas,
      attributes: { type: 'expression', ...dxf(look), ...stop },
      content: xml('formula', {}, escaped(formula)),
    })),
  };
}

/** The `conditionalFormatting` elements of rules in order of precedence, 18.3.1.18. */
export function writeConditions(rules: readonly WrittenRule[]): string {
  return rules
    .map(({ areas, attributes, content }, at) =>
      xml(
        'conditionalFormatting',
        { sqref: areas.map(writeArea).join(' ') },
        xml('cfRule', { ...attributes, priority: at + 1 }, content),
      ),
    )
    .join('');
}

/** Kinds that compare cells with one another: their ranges stay together. */
const TOGETHER: ReadonlySet<When['kind']> = new Set(['average', 'rank', 'repeat', 'scale', 'bar', 'icons']);

/**
 * Ranges with one cell for which a formula of all of them is written. Programs differ in which cell that is, the first
 * range's or that of the box around them all: where the two are not the same cell, each range has a formula of its own.
 */
function blocksOf(areas: readonly CellRange[]): readonly (readonly CellRange[])[] {
  const { left, top } = itemAt(areas, 0);
  return areas.every((area) => area.left >= left && area.top >= top) ? [areas] : areas.map((area) => [area]);
}

function formulasOf(
  { rule }: RunningRule,
  sheet: Sheet,
  areas: readonly CellRange[],
): Pick<ConditionContext, 'cell' | 'formula' | 'operand'> {
  const written = writtenFor(rule, sheet);
  const first = itemAt(areas, 0);
  const formula = (text: string): string | undefined => {
    const tree = plainTree(text, sheet, written.position);
    if (!tree) return undefined;
    return toOoxmlFormula(
      parseFormula(shiftFormula(printFormula(tree), first.left - written.column, first.top - written.position)).tree,
    );
  };
  const operand = (given: Operand): string | undefined => {
    if (typeof given === 'number') return numberText(given);
    if (typeof given === 'boolean') return given ? 'TRUE' : 'FALSE';
    if (typeof given === 'string') return `"${given.replaceAll('"', '""')}"`;
    if ('formula' in given) return formula(given.formula);
    if ('field' in given) return undefined;
    const at = parseAddress(given.cell);
    return at && cellAddress(at.column, at.position).replace(/^([A-Z]+)/, '$$$1$$');
  };
  return { cell: cellAddress(first.left, first.top), formula, operand };
}
