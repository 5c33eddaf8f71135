import { readableText } from '../../core/looks/readable-text';
import { lookProperties, type Look, type LookValues } from '../../core/looks/look';
import { painted } from '../grid/painter/scene';
import { barCss, paintedCss } from '../painted-css';
import { LookIcon } from './LookIcon';
import classes from './Swatch.module.css';
import { useLooks } from './use-looks';

interface Props {
  readonly look: Look | null;
  readonly text?: string;
  readonly isSmall?: boolean;
}

/** A look as it really is, on a few characters. */
export function Swatch({ look, text = 'Aa 9.1', isSmall = false }: Props) {
  const { saved } = useLooks();
  const properties: Partial<LookValues> = Object.fromEntries(look ? lookProperties(look, saved) : []);
  const { bar, icon, fill, text: ink } = properties;
  // Properties that a rule leaves open are chosen as in the grid.
  const chosen = fill !== undefined && ink === undefined ? { color: readableText(fill) } : {};
  const css = { ...chosen, ...paintedCss(painted({ properties, rules: [], style: {} })) };
  return (
    <span
      className={classes.swatch}
      data-small={isSmall}
      style={bar ? { ...css, backgroundImage: barCss({ ...bar, end: 0.6 }) } : css}
    >
      {icon ? <LookIcon icon={icon} /> : text}
    </span>
  );
}
