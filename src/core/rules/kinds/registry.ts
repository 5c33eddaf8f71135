import { entryOf } from '../../values/entry-of';
import { keysOf } from '../../values/typed-keys';
import { average, type AverageWhen } from './average';
import { bands, type BandsWhen } from './bands';
import { bar, type BarWhen } from './bar';
import { category, type CategoryWhen } from './category';
import { change, type ChangeWhen } from './change';
import { compare, type CompareWhen } from './compare';
import { date, type DateWhen } from './date';
import { formula, type FormulaWhen } from './formula';
import { icons, type IconsWhen } from './icons';
import { key, type KeyWhen } from './key';
import type { ConditionKind } from './kind';
import { rank, type RankWhen } from './rank';
import { repeat, type RepeatWhen } from './repeat';
import { scale, type ScaleWhen } from './scale';
import { state, type StateWhen } from './state';
import { text, type TextWhen } from './text';

/** A condition: the `when` of a rule. */
export type When =
  | CompareWhen
  | TextWhen
  | StateWhen
  | DateWhen
  | AverageWhen
  | RankWhen
  | RepeatWhen
  | FormulaWhen
  | ChangeWhen
  | KeyWhen
  | BandsWhen
  | CategoryWhen
  | ScaleWhen
  | BarWhen
  | IconsWhen;
export type KindName = When['kind'];

/** Every kind of condition. A new kind is its own file, one line in the union above and one here. */
export const KINDS = {
  compare,
  text,
  state,
  date,
  average,
  rank,
  repeat,
  formula,
  change,
  key,
  bands,
  category,
  scale,
  bar,
  icons,
} as const satisfies { [K in KindName]: ConditionKind<Extract<When, { kind: K }>> };

export const KIND_NAMES = keysOf(KINDS);

/** The kind of a condition, typed for any condition: the registry pairs each name with the kind that takes it. */
export const kindOf = (when: When): ConditionKind<When> => entryOf(KINDS, when.kind);
