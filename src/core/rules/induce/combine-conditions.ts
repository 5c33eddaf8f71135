import { columnLetters } from '../../sheet/address';
import { kindOf, type When } from '../kinds/registry';
import type { RuleWorld } from '../compile/compile-context';
import { isProblem } from '../terms';
import type { Evidence } from '../propose/evidence';
import { candidatesOf, lengthOf } from '../propose/registry';
import { conditionFormula } from './condition-formula';

/** One of the two conditions of a combination: about one field. */
export interface ConditionPart {
  readonly column: number;
  readonly when: When;
}

/** Two conditions that must both hold, or of which one is enough. */
export interface Combination {
  readonly how: 'and' | 'or';
  readonly parts: readonly [ConditionPart, ConditionPart];
  /** The length of both in bits. */
  readonly bits: number;
}

/** Kinds whose conditions can be parts. */
const PART_KINDS = ['compare', 'text', 'state'] as const;
/** Conditions of a field that are kept for one example. */
const MAX_ALIKE = 6;
/** Examples of which each gets conditions of its own: one after another for all others. */
const MAX_SINGLED = 8;
const MAX_COMBINATIONS = 120;

/** A condition, and which of the examples that count it covers: a bit for each. */
interface Cover extends ConditionPart {
  readonly bits: number;
  readonly covers: number;
}

/**
 * Combinations of two conditions that fit the examples where neither alone does. For "and", each holds for all that is
 * wanted and leaves out some of the rest; for "or", each holds for some that is wanted and for nothing else. One field
 * may be in both. The shortest first.
 */
export function combineConditions(fields: readonly Evidence[], world: RuleWorld): Combination[] {
  const both = pairs(
    'and',
    fields.map((evidence) => coversOf(evidence, world, 'no')),
  );
  const either = pairs(
    'or',
    fields.map((evidence) => coversOf(evidence, world, 'yes')),
  );
  return [...both, ...either].sort((a, b) => a.bits - b.bits).slice(0, MAX_COMBINATIONS);
}

/**
 * Conditions over one field that fit all examples of one sort and a single one of the other (`no`: all that are wanted,
 * and leave out one that is not; `yes`: one that is wanted, and none that is not), and which others of its sort each
 * covers as well.
 */
function coversOf(evidence: Evidence, world: RuleWorld, sort: 'no' | 'yes'): Cover[] {
  const { column, read } = evidence;
  const singled = evidence[sort].slice(0, MAX_SINGLED);
  if (singled.length < 2) return [];
  const found = new Map<string, Cover>();
  for (const cell of singled) {
    const yes = sort === 'yes' ? [cell] : evidence.yes;
    const unwanted = sort === 'no' ? [cell] : evidence.no;
    const narrowed = evidence.with({ wanted: [{ look: {}, cells: yes }], unwanted });
    for (const { when, bits } of shortest(candidatesOf(PART_KINDS, narrowed), evidence.valueCount)) {
      const key = JSON.stringify(when);
      if (found.has(key)) continue;
      const kernel = kindOf(when).compile(when, { ...world, cells: read });
      if (isProblem(kernel)) continue;
      const covers = singled.reduce((bits, each, at) => {
        const holds = kernel.outcomeAt(each.column, each.slot) >= 0;
        return holds === (sort === 'yes') ? bits | (1 << at) : bits;
      }, 0);
      found.set(key, { column, when, bits, covers });
    }
  }
  return [...found.values()];
}

/** The few shortest of the conditions that can be said in a formula. */
const shortest = (found: Iterable<When>, values: number): { readonly when: When; readonly bits: number }[] =>
  [...found]
    .filter((when) => conditionFormula(when, 'A1') !== undefined)
    .map((when) => ({ when, bits: lengthOf(when, { fields: 1, values }) }))
    .sort((a, b) => a.bits - b.bits)
    .slice(0, MAX_ALIKE);

/**
 * Pairs that together cover all examples, of covers by field; which of the fields it is costs bits as well. An example
 * that no condition covers is left out, and may be the one that does not fit.
 */
function pairs(how: 'and' | 'or', byField: readonly (readonly Cover[])[]): Combination[] {
  const covers = byField.flat();
  const whole = covers.reduce((bits, each) => bits | each.covers, 0);
  const fieldBits = Math.log2(byField.length);
  return covers.flatMap((one, at) =>
    covers.slice(at + 1).flatMap((other) => {
      if ((one.covers | other.covers) !== whole || one.covers === whole || other.covers === whole) return [];
      return { how, parts: [one, other], bits: one.bits + other.bits + 2 * fieldBits } satisfies Combination;
    }),
  );
}

/** A combination as a rule's condition, written for the row at a position. */
export function combinedWhen(
  { how, parts }: Combination,
  { column, position }: { readonly column: number; readonly position: number },
): When {
  const formulas = parts.map((part) => conditionFormula(part.when, `$${columnLetters(part.column)}${position + 1}`));
  const at = `${columnLetters(column)}${position + 1}`;
  return { kind: 'formula', formula: `=${how === 'and' ? 'AND' : 'OR'}(${formulas.join(';')})`, at };
}
