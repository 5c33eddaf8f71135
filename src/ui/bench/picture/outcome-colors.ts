import type { Theme } from '../../../core/looks/first-family';
import { lookProperties, type Look, type LookIcon, lookValue } from '../../../core/looks/look';
import { ICON_SETS } from '../../../core/looks/icon-sets';
import { kindOf } from '../../../core/rules/kinds/registry';
import type { Rule } from '../../../core/rules/shape/rule';
import { TOKENS } from '../../theme/tokens';

/** The colours that stand for an outcome in a picture. */
export interface OutcomeColors {
  readonly fill: string;
  readonly line: string;
}

/** The colours that stand for each outcome of a rule, by its number; null where it has no look. */
export function outcomeColors(
  rule: Rule,
  { saved, theme }: { readonly saved: Readonly<Record<string, Look>>; readonly theme: Theme },
): readonly (OutcomeColors | null)[] {
  const { ink, line } = TOKENS[theme];
  const looks = kindOf(rule.when).outcomeLooks(rule.when) ?? [rule.look ?? null];
  return looks.map((look) => {
    if (!look) return null;
    const properties = lookProperties(look, saved);
    const fill = properties.get('fill');
    const bar = lookValue(properties, 'bar');
    if (bar) return { fill: bar.color, line: bar.color };
    const icon = lookValue(properties, 'icon');
    if (icon && fill === undefined) return { fill: `color-mix(in srgb, ${ink} ${iconShare(icon)}%, ${line})`, line };
    const text = lookValue(properties, 'text');
    const border = lookValue(properties, 'border.top');
    const edge = text ?? border?.color ?? ink;
    return { fill: typeof fill === 'string' ? fill : edge, line: edge };
  });
}

/** The colour of one outcome; where there are more outcomes than colours, from the first again. */
export const colorOfOutcome = (colors: readonly (OutcomeColors | null)[], outcome: number): OutcomeColors | null =>
  (outcome < 0 ? null : colors[outcome % colors.length]) ?? null;

/** How dark an icon of a set stands in a picture: the higher, the darker. */
const iconShare = ({ set, index }: LookIcon): number => (60 * index) / Math.max(1, ICON_SETS[set].length - 1);
