import type { Look } from '../../looks/look';
import type { Operation } from '../../sheet/change';
import { putRules, type StoredRule } from '../shape/stored-rule';
import type { Evaluation } from '../evaluate/evaluation';

/** Something about the rules that a person should know, in plain words. */
export interface Advice {
  readonly code: string;
  readonly rules: readonly string[];
  /** Addresses of cells that show it. */
  readonly cells: readonly string[];
  readonly message: string;
  /** A change that mends it, where there is one. */
  readonly repair: readonly Operation[] | null;
}

/** The input of an adviser. */
export interface AdviceContext {
  readonly evaluation: Evaluation;
  /** The rules in order of precedence, as they are kept. */
  readonly stored: readonly StoredRule[];
  readonly saved: Readonly<Record<string, Look>>;
}

/** One code of advice: what it finds. */
export type Adviser = (context: AdviceContext) => Omit<Advice, 'code'>[];

/** The same rule with some of it changed, as an operation. */
export const replaced = ({ id, key, rule }: StoredRule, change: Partial<StoredRule['rule']>): Operation =>
  putRules([{ id, key, rule: { ...rule, ...change } }]);
