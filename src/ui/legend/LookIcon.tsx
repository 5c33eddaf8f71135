import type { LookIcon as Icon } from '../../core/looks/look';
import { ICON_PATHS } from '../grid/painter/icon-paths';
import { useTokens } from '../theme/use-tokens';

/** An icon as it is painted in cells. */
export function LookIcon({ icon: { set, index } }: { readonly icon: Icon }) {
  const tokens = useTokens();
  const icon = ICON_PATHS[set]?.[index];
  if (!icon) return null;
  const color = icon.tone ? tokens.tones[icon.tone] : 'currentColor';
  return (
    <svg
      width={16}
      height={16}
      viewBox="0 0 24 24"
      aria-hidden
      strokeLinecap="round"
      strokeLinejoin="round"
      strokeWidth={2.2}
    >
      {icon.drawn.map((path) => (
        <path key={path} d={path} fill="none" stroke={color} />
      ))}
      {icon.filled.map((path) => (
        <path key={path} d={path} fill={color} />
      ))}
    </svg>
  );
}
