import { lookProperties, type Look, type LookValues } from '../../core/looks/look';
import { barColor, inkFor } from '../grid/painter/inks';
import { painted } from '../grid/painter/scene';
import { barCss, paintedCss } from '../painted-css';
import type { Tokens } from '../theme/tokens';
import { LookIcon } from './LookIcon';
import classes from './Swatch.module.css';

interface Props {
  readonly look: Look | null;
  /** The saved looks that it may start from. */
  readonly saved: Readonly<Record<string, Look>>;
  readonly tokens: Tokens;
  readonly text: string;
  readonly isSmall?: boolean;
}

/** A look as it really is, on a few characters, in one scheme. */
export function LookSwatch({ look, saved, tokens, text, isSmall = false }: Props) {
  const properties: Partial<LookValues> = Object.fromEntries(look ? lookProperties(look, saved) : []);
  const { bar, icon } = properties;
  const shown = painted({ properties, rules: [], style: {} });
  const css = paintedCss(shown, tokens);
  return (
    <span
      className={classes.swatch}
      data-small={isSmall}
      style={
        bar
          ? {
              ...css,
              backgroundImage: barCss({ ...bar, end: 0.6, color: barColor(bar.color, inkFor(shown, tokens), tokens) }),
            }
          : css
      }
    >
      {icon ? <LookIcon icon={icon} /> : text}
    </span>
  );
}
