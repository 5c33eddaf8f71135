import { hasKey } from '../../values/typed-keys';
import { parseFormula } from '../../formula/syntax/parse-formula';
import type { FormulaNode } from '../../formula/syntax/formula-tree';
import { printFormula } from '../../formula/syntax/print-formula';
import type { Hex, Look } from '../../looks/look';
import type { Position } from '../../rules/compile/positions';
import type { When } from '../../rules/kinds/registry';
import type { Operand } from '../../rules/terms';
import { cellAddress, parseRanges, writeArea, type CellRange } from '../../sheet/address';
import type { Losses } from '../workbook/losses';
import { operandOfFormula } from '../workbook/operand-of-formula';
import { unusableBecause } from '../workbook/unusable-formula';
import type { WorkbookRule } from '../workbook/workbook-sheet';
import { isTrue } from '../xml/xml-boolean';
import { childOf, childrenOf, textOf, type XmlElement } from '../xml/xml-element';
import { fromOoxmlFormula } from './formula-text';
import { FROM_FAMILY } from './icon-families';
import { PERIODS } from './periods';
import { readColor } from './read-color';

/** The surroundings of a conditional format. */
export interface ConditionSurroundings {
  readonly sheet: string;
  readonly looks: readonly Look[];
  readonly theme: readonly (Hex | undefined)[];
  readonly losses: Losses;
}

export interface PlacedRule {
  readonly priority: number;
  readonly rule: WorkbookRule;
}

/** One rule of the standard, and the cells that it is over. */
interface GivenCondition extends ConditionSurroundings {
  readonly element: XmlElement;
  readonly type: string;
  readonly attributes: Readonly<Record<string, string>>;
  /** Its formulas as ours, with `=`; undefined where one is not supported. */
  readonly formulas: readonly (string | undefined)[];
  /** The cell that its formulas are written for: the corner of the box around all its ranges, by common practice. */
  readonly base: string;
}

/** A rule of the standard as a condition, or why it is not supported. */
type ReadCondition = { readonly when: When } | { readonly lost: string };

/**
 * Reads the rules of a `conditionalFormatting` element, 18.3.1.18, all its types as 18.18.12 lists them. What is not
 * supported is reported.
 */
export function readConditions(element: XmlElement, around: ConditionSurroundings): PlacedRule[] {
  const sqref = element.attributes.sqref ?? '';
  const ranges = parseRanges(sqref.trim());
  if (!ranges) {
    around.losses.add('A conditional format without cells that can be read is left out', sqref);
    return [];
  }
  return childrenOf(element, 'cfRule').flatMap((rule) => readRule(rule, ranges, around) ?? []);
}

function readRule(
  element: XmlElement,
  ranges: readonly CellRange[],
  around: ConditionSurroundings,
): PlacedRule | undefined {
  const { attributes } = element;
  const base = cellAddress(Math.min(...ranges.map(({ left }) => left)), Math.min(...ranges.map(({ top }) => top)));
  const where = ranges.map(writeArea).join(' ');
  const formulas = childrenOf(element, 'formula').map((formula) => fromOoxmlFormula(textOf(formula), around.sheet));
  const type = attributes.type ?? '';
  const said = READERS[type]?.({ ...around, element, type, attributes, formulas, base }) ?? {
    lost: `the type “${type}” is not one of the standard`,
  };
  if ('lost' in said) {
    around.losses.add(`A conditional format is left out: ${said.lost}`, where);
    return undefined;
  }
  if (childOf(childOf(element, 'extLst'), 'ext'))
    around.losses.add('What a conditional format has beyond the standard is left out', where);
  const look = attributes.dxfId === undefined ? undefined : around.looks[Number(attributes.dxfId)];
  return {
    priority: Number(attributes.priority ?? Infinity),
    rule: {
      name: null,
      on: true,
      settles: isTrue(attributes.stopIfTrue),
      reads: { cells: where },
      when: said.when,
      paints: 'cell',
      ...(look && !OWN_LOOKS.has(type) ? { look } : {}),
    },
  };
}

/** Types that carry looks of their own; the others have a differential format. */
const OWN_LOOKS = new Set(['colorScale', 'dataBar', 'iconSet']);

const UNREADABLE =
  'its formula uses what there is no word for here, such as another file, a table or a function that is not there';

function byFormula({ formulas, base }: GivenCondition): ReadCondition {
  const [text] = formulas;
  if (text === undefined || unusableBecause(text) !== undefined) return { lost: UNREADABLE };
  return { when: { kind: 'formula', formula: text, at: base } };
}

const COMPARISON = {
  lessThan: '<',
  lessThanOrEqual: '<=',
  equal: '=',
  notEqual: '!=',
  greaterThanOrEqual: '>=',
  greaterThan: '>',
  between: 'between',
  notBetween: 'outside',
} as const;

function byValue(given: GivenCondition): ReadCondition {
  const { attributes, formulas } = given;
  const operator = attributes.operator ?? '';
  if (!hasKey(COMPARISON, operator)) return byText(given);
  const is = COMPARISON[operator];
  const operands = formulas.map(operandOfFormula);
  const [low, high] = operands;
  const takes = is === 'between' || is === 'outside' ? 2 : 1;
  if (low === undefined || (takes === 2 && high === undefined)) return { lost: UNREADABLE };
  const to = takes === 2 && high !== undefined ? ([low, high] as const) : low;
  return {
    when: { kind: 'compare', is, to },
  };
}

const TEXT_TYPES = {
  containsText: 'contains',
  notContainsText: 'lacks',
  notContains: 'lacks',
  beginsWith: 'starts',
  endsWith: 'ends',
} as const;

function byText(given: GivenCondition): ReadCondition {
  const { attributes, type, formulas } = given;
  const name = hasKey(TEXT_TYPES, type) ? type : (attributes.operator ?? '');
  const is = hasKey(TEXT_TYPES, name) ? TEXT_TYPES[name] : undefined;
  if (!is) return { lost: `the operator “${attributes.operator ?? ''}” is not one of the standard` };
  // The word stands in the attribute; a formula finds it where it is read from a cell.
  const word = attributes.text ?? (formulas.length === 1 ? wordSought(formulas[0]) : undefined);
  return word === undefined ? byFormula(given) : { when: { kind: 'text', is, any: [word] } };
}

/** The text that a formula such as `NOT(ISERROR(SEARCH("x";B2)))` searches for. */
function wordSought(text: string | undefined): Operand | undefined {
  const tree = text !== undefined && unusableBecause(text) === undefined ? parseFormula(text).tree : undefined;
  const find = (node: FormulaNode): FormulaNode | undefined =>
    node.kind === 'call'
      ? node.name === 'SEARCH'
        ? node.args[0]
        : node.args.map(find).find((each) => each !== undefined)
      : undefined;
  const sought = tree && find(tree);
  return sought && operandOfFormula(printFormula(sought));
}

function byPeriod({ attributes, losses }: GivenCondition): ReadCondition {
  const { timePeriod = '' } = attributes;
  const is = PERIODS[timePeriod];
  if (!is) return { lost: `the period “${timePeriod}” is not one of the standard` };
  if (/week/i.test(timePeriod))
    losses.add('Weeks begin on the sheet’s own first day, which may be another than in the file');
  return { when: { kind: 'date', is } };
}

function byAverage({ attributes }: GivenCondition): ReadCondition {
  const side = isTrue(attributes.aboveAverage, true) ? 'above' : 'below';
  const deviations = Number(attributes.stdDev ?? 0);
  const is = isTrue(attributes.equalAverage) ? (`at-or-${side}` as const) : side;
  return {
    when: { kind: 'average', is, ...(deviations > 0 ? { deviations } : {}) },
  };
}

function byRank({ attributes }: GivenCondition): ReadCondition {
  const is = isTrue(attributes.bottom) ? 'bottom' : 'top';
  const rank = Number(attributes.rank ?? 10);
  if (!(rank >= 1)) return { lost: 'its rank is no number' };
  const isPercent = isTrue(attributes.percent);
  return {
    when: isPercent ? { kind: 'rank', is, percent: Math.min(100, rank) } : { kind: 'rank', is, n: Math.floor(rank) },
  };
}

/** A place on the scale, 18.3.1.11. */
function positionOf({ attributes }: XmlElement, { sheet }: GivenCondition): Position | undefined {
  const { type, val } = attributes;
  if (type === 'min') return 'least';
  if (type === 'max') return 'greatest';
  const number = Number(val);
  const isNumber = val !== undefined && val.trim() !== '' && !Number.isNaN(number);
  if (isNumber && type === 'percent' && number >= 0 && number <= 100) return { percent: number };
  if (isNumber && type === 'percentile' && number >= 0 && number <= 100) return { percentile: number };
  if (isNumber && type === 'num') return number;
  const operand = operandOfFormula(fromOoxmlFormula(val ?? '', sheet));
  return typeof operand === 'string' ||
    typeof operand === 'boolean' ||
    (typeof operand === 'object' && 'field' in operand)
    ? undefined
    : operand;
}

const NO_PLACE = 'a place on its scale cannot be read';

function byScale(given: GivenCondition): ReadCondition {
  const scale = childOf(given.element, 'colorScale');
  const places = childrenOf(scale, 'cfvo').map((cfvo) => positionOf(cfvo, given));
  const colors = childrenOf(scale, 'color').map((color) => readColor(color, given.theme));
  const stops = places.flatMap((at, place) => (at === undefined || !colors[place] ? [] : { at, color: colors[place] }));
  if (stops.length < 2 || stops.length !== places.length) return { lost: NO_PLACE };
  return { when: { kind: 'scale', stops, space: 'rgb' } };
}

function byBar(given: GivenCondition): ReadCondition {
  const bar = childOf(given.element, 'dataBar');
  const [from, to] = childrenOf(bar, 'cfvo').map((cfvo) => positionOf(cfvo, given));
  const color = readColor(childOf(bar, 'color'), given.theme);
  if (from === undefined || to === undefined) return { lost: NO_PLACE };
  const hides = !isTrue(bar?.attributes.showValue, true);
  if (bar?.attributes.minLength !== undefined && Number(bar.attributes.minLength) > 0)
    given.losses.add('Bars begin at nothing, not at a least length', given.base);
  return {
    when: { kind: 'bar', from, to, ...(color ? { color } : {}), axis: 'none', ...(hides ? { showValue: false } : {}) },
  };
}

function byIcons(given: GivenCondition): ReadCondition {
  const icons = childOf(given.element, 'iconSet');
  const family = icons?.attributes.iconSet ?? '3TrafficLights1';
  const set = FROM_FAMILY[family];
  const [, ...places] = childrenOf(icons, 'cfvo');
  const cuts = places.flatMap((cfvo) => {
    const at = positionOf(cfvo, given);
    return at === undefined ? [] : { at, ...(isTrue(cfvo.attributes.gte, true) ? {} : { edge: '>' as const }) };
  });
  if (!set) return { lost: `the icons “${family}” are not of the standard` };
  if (cuts.length !== places.length || cuts.length + 1 !== Number(family[0])) return { lost: NO_PLACE };
  given.losses.add('Icons are drawn in this app’s own way', given.base);
  return {
    when: {
      kind: 'icons',
      set,
      cuts,
      ...(isTrue(icons?.attributes.reverse) ? { reverse: true } : {}),
      ...(isTrue(icons?.attributes.showValue, true) ? {} : { showValue: false }),
    },
  };
}

/** One reader a type of ISO/IEC 29500-1, 18.18.12. */
const READERS: Readonly<Record<string, (given: GivenCondition) => ReadCondition>> = {
  expression: byFormula,
  cellIs: byValue,
  containsText: byText,
  notContainsText: byText,
  beginsWith: byText,
  endsWith: byText,
  containsBlanks: () => ({ when: { kind: 'state', is: 'blank' } }),
  notContainsBlanks: () => ({ when: { kind: 'state', is: 'filled' } }),
  containsErrors: () => ({ when: { kind: 'state', is: 'error' } }),
  // Blanks are no errors: as a formula, so that they match here too.
  notContainsErrors: ({ base }) => ({ when: { kind: 'formula', formula: `=NOT(ISERROR(${base}))`, at: base } }),
  timePeriod: byPeriod,
  aboveAverage: byAverage,
  top10: byRank,
  uniqueValues: () => ({ when: { kind: 'repeat', is: 'unique' } }),
  duplicateValues: () => ({ when: { kind: 'repeat', is: 'repeated' } }),
  colorScale: byScale,
  dataBar: byBar,
  iconSet: byIcons,
};
