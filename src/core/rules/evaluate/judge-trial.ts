import { Sheet } from '../../sheet/sheet';
import type { RuleWorld } from '../compile/compile-context';
import { kindOf } from '../kinds/registry';
import type { Rule } from '../shape/rule';
import type { Trial } from '../terms';
import { RunningRule } from './running-rule';

/** Kinds whose outcome depends on the value alone. */
const BY_VALUE: ReadonlySet<string> = new Set([
  'compare',
  'text',
  'state',
  'date',
  'bands',
  'category',
  'key',
  'icons',
]);

/**
 * Whether a rule judges a value by itself, so that trials can be kept with it: it must not look at any other cell
 * either.
 */
export const takesTrials = ({ when }: Pick<Rule, 'when'>): boolean => BY_VALUE.has(when.kind) && !refersToCells(when);

/**
 * The outcome of one value, as the only record of a sheet with the same fields: whether the rule matches, or its
 * outcome, null for none.
 */
export function judgeTrial(rule: Rule, value: Trial['value'], world: RuleWorld): Trial['expect'] {
  const alone = sheetOfOne(world.sheet, value);
  const reads = { fields: alone.fields.map(({ id }) => id) };
  const running = new RunningRule(
    { ...rule, on: true, reads, paints: 'cell' },
    { ...world, sheet: alone, formulas: { ...world.formulas, sheet: alone } },
  );
  const outcome = running.outcomeAt(0, 0);
  if (kindOf(rule.when).outcomes === 'match') return outcome >= 0;
  return outcome < 0 ? null : (running.outcomeTold(0, 0) as Trial['expect']);
}

function refersToCells(when: Rule['when']): boolean {
  let refers = false;
  const seen = (reference: string): string => {
    refers = true;
    return reference;
  };
  kindOf(when).mapReferences(when, { field: seen, cells: seen, formula: seen });
  return refers;
}

function sheetOfOne({ fields, settings }: Sheet, value: Trial['value']): Sheet {
  const alone = new Sheet(fields, settings);
  const slot = alone.appendRow({ id: 'trial', key: '', role: 'record' });
  const input = value === null ? '' : typeof value === 'boolean' ? String(value).toUpperCase() : String(value);
  for (const column of alone.columns) column.set(slot, input);
  return alone;
}
