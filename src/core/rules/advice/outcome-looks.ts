import { lookProperties, type Look, type LookProperties, lookValue } from '../../looks/look';
import { groundOf } from '../../looks/readable-text';
import type { Reads } from '../terms';
import { kindOf } from '../kinds/registry';
import type { AdviceContext } from './advice';

/** One outcome of a rule that shows something, with its look taken apart. */
export interface OutcomeLook {
  readonly rule: string;
  readonly name: string;
  readonly reads: Reads;
  readonly look: Look;
  readonly properties: LookProperties;
  /** The one colour that stands for its fill. */
  readonly ground: string | undefined;
}

/**
 * The looks of all rules that are on, outcome by outcome. Gradations, whose looks differ from cell to cell, are left
 * out.
 */
export function outcomeLooks({ evaluation, saved }: AdviceContext): OutcomeLook[] {
  return evaluation.activeRules.flatMap((running) => {
    const { rule } = running;
    if (!rule.on || running.problem || running.variesByCell) return [];
    const looks = kindOf(rule.when).outcomeLooks(rule.when) ?? [rule.look ?? null];
    return looks.flatMap((look) => {
      if (!look) return [];
      const properties = lookProperties(look, saved);
      const fill = lookValue(properties, 'fill');
      return [{ rule: rule.id, name: rule.name, reads: rule.reads, look, properties, ground: fill && groundOf(fill) }];
    });
  });
}

/** Every two of some things once. */
export const pairsOf = <T>(things: readonly T[]): (readonly [T, T])[] =>
  things.flatMap((one, at) => things.slice(at + 1).map((other) => [one, other] as const));
