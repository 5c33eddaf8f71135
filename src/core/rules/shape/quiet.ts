import { lazySchema } from '../../lazy-schema';
import { operandsOf, type CompareWhen } from '../kinds/compare';
import type { SentenceWords } from '../terms';
import { itemAt } from '../../values/item-at';
import { DAYS } from '../kinds/change';
import type { When } from '../kinds/registry';
import { keysOf } from '../../values/typed-keys';

export type QuietUnit = keyof typeof DAYS;
export const QUIET_UNITS: readonly QuietUnit[] = keysOf(DAYS);

export interface QuietTime {
  readonly n: number;
  readonly unit: QuietUnit;
}

/**
 * What keeps the findings of a rule from being many: an on-delay, a deadband and a shortest time between two (IEC 62682
 * names the first two for alarms).
 */
export interface Quiet {
  /** How long a cell must have the look before that is a finding. */
  readonly hold?: QuietTime;
  /** A cell that was found has left once the comparison with this limit does not hold either. */
  readonly rearm?: number;
  /** For how long after a finding that it entered the same cell gives no other. */
  readonly every?: QuietTime;
}

/** Times of a quiet rule in days. */
export interface QuietLimits {
  readonly hold: number;
  readonly every: number;
}

const time = lazySchema<QuietTime>((joi) =>
  joi.object({
    n: joi.number().strict().integer().min(1).max(10_000).required(),
    unit: joi.valid(...QUIET_UNITS).required(),
  }),
);

export const quietSchema = lazySchema<Quiet>((joi) =>
  joi.object({ hold: time(joi), rearm: joi.number().strict(), every: time(joi) }).or('hold', 'rearm', 'every'),
);

const daysOf = (given: QuietTime | undefined): number => (given ? given.n * DAYS[given.unit] : 0);

/** Hold and shortest time between two findings, in days; 0 where there is none. */
export const quietLimits = ({ hold, every }: Quiet): QuietLimits => ({ hold: daysOf(hold), every: daysOf(every) });

/** The part of a rule that is looked at here. */
interface MaybeQuiet {
  readonly when: When;
  readonly quiet?: Quiet;
}

type OneLimit = CompareWhen & { readonly is: '<' | '<=' | '>' | '>='; readonly to: number };

/** Whether a rule has one limit that is a number, so that it can be armed again at another one. */
export const hasOneLimit = (when: When): when is OneLimit =>
  when.kind === 'compare' && ['<', '<=', '>', '>='].includes(when.is) && typeof when.to === 'number';

/** What is wrong with the limit at which a rule is armed again; null where nothing is. */
export function rearmMistake({ when, quiet }: MaybeQuiet): string | null {
  if (quiet?.rearm === undefined) return null;
  if (!hasOneLimit(when)) return '"rearm" needs a comparison with one number: "<", "<=", ">" or ">="';
  const isFromBelow = when.is === '<' || when.is === '<=';
  if (isFromBelow ? quiet.rearm > when.to : quiet.rearm < when.to) return null;
  return `"rearm" must be ${isFromBelow ? 'above' : 'below'} the limit, ${when.to}`;
}

/** The condition by which a cell that was found stays so; null where it is the rule's own. */
export const stayCondition = (rule: MaybeQuiet): CompareWhen | null =>
  rule.quiet?.rearm !== undefined && hasOneLimit(rule.when) && rearmMistake(rule) === null
    ? { ...rule.when, to: rule.quiet.rearm }
    : null;

/** A rule without a limit to be armed again at that does not suit its condition. */
export function withFittingQuiet<T extends MaybeQuiet>(rule: T): T | Omit<T, 'quiet'> {
  if (rearmMistake(rule) === null) return rule;
  const { quiet, ...rest } = rule;
  const { rearm: _, ...times } = quiet ?? {};
  return Object.keys(times).length === 0 ? rest : { ...rest, quiet: times };
}

const counted = ({ n, unit }: QuietTime): string => `${n} ${unit}${n === 1 ? '' : 's'}`;

/** When the findings of a rule are reported, in words: "after 30 minutes, at most once a day for each cell"; null for at once. */
export function quietWords({ when, quiet }: MaybeQuiet, words: SentenceWords): string | null {
  if (!quiet) return null;
  const { hold, every } = quiet;
  const stays = stayCondition({ when, quiet });
  const parts = [
    hold && `after ${counted(hold)}`,
    stays && `until back at ${words.operand(itemAt(operandsOf(stays), 0))}`,
    every &&
      `at most once ${every.n === 1 ? `${every.unit === 'hour' ? 'an' : 'a'} ${every.unit}` : `in ${counted(every)}`} for each cell`,
  ].filter(Boolean);
  return parts.length ? parts.join(', ') : null;
}
