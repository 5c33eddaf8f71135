import type { Look } from '../../looks/look';
import type { RuleId } from '../../sheet/ids';
import { kindOf } from '../kinds/registry';
import type { Rule } from './rule';
import { sentenceWords, type NamedField } from './sentence-words';

/** The legend's entry of a rule for readers: its looks, each with its meaning. */
export interface RuleMeaning {
  readonly id: RuleId;
  readonly name: string;
  readonly note: string | null;
  readonly group: string | null;
  /** How the condition reads in plain words; null where that would tell what the reader does not get. */
  readonly sentence: string | null;
  /** Cells that are given a look. */
  readonly matched: number;
  /** Its outcomes that have a look. `says` is empty for a plain match. */
  readonly outcomes: readonly { readonly look: Look; readonly says: string; readonly count: number }[];
}

interface Counted {
  readonly rule: Rule;
  readonly sentence: string;
  readonly matched: number;
  /** How many cells have each outcome, by its number. */
  readonly outcomes: readonly number[];
}

/** The meaning of an active rule, with fields by label. */
export function ruleMeaning(
  { rule, sentence, matched, outcomes }: Counted,
  fields: readonly NamedField[],
): RuleMeaning {
  const kind = kindOf(rule.when);
  const words = sentenceWords(fields, rule.reads);
  const looks = kind.outcomeLooks(rule.when) ?? [rule.look ?? null];
  return {
    id: rule.id,
    name: rule.name,
    note: rule.note ?? null,
    group: rule.group ?? null,
    sentence,
    matched,
    outcomes: looks.flatMap((look, outcome) =>
      look ? [{ look, says: kind.outcomeName(rule.when, outcome, words), count: outcomes[outcome] ?? 0 }] : [],
    ),
  };
}
