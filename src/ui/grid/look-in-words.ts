import { SIDES, type BorderSide, type Fill, type Side } from '../../core/looks/look';
import type { Texts } from '../../texts/texts';

interface SeenLook {
  readonly fill: Fill | undefined;
  readonly borders: readonly (readonly [Side, BorderSide])[];
  readonly isBanded: boolean;
}

/** What eyes see of a look besides what its rules are called: shading, borders, and a fill of several colours. */
export function lookInWords({ fill, borders, isBanded }: SeenLook, t: Texts<'grid'>): string | undefined {
  const sides = borders.map(([side]) => side);
  const said = [
    isBanded && t('shaded'),
    sides.length === SIDES.length ? t('borderAllAround') : sides.map((side) => t('side', { side })).join(', '),
    typeof fill === 'object' && mixInWords(fill, t),
  ].filter(Boolean);
  return said.length > 0 ? said.join('; ') : undefined;
}

function mixInWords(fill: Exclude<Fill, string>, t: Texts<'grid'>): string {
  if ('opacity' in fill) return t('fillColorShareOpaque', { color: fill.color, share: percent(fill.opacity) });
  if ('from' in fill) return t('fillFromFrom', { from: fill.from, to: fill.to });
  return t('fillPatternColorGround', { pattern: fill.pattern, color: fill.color, ground: fill.on ?? t('theSheet') });
}

const percent = (share: number): string => `${Math.round(share * 100)}%`;
