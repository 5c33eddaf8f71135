import { useTranslations } from 'use-intl';
import { eachText } from '../../../texts/texts';
import { keysOf, recordOf } from '../../../core/values/typed-keys';
import type { BorderSide, Look } from '../../../core/looks/look';
import classes from '../Bench.module.css';
import { PickColor } from '../parts/PickColor';
import { PickWord } from '../parts/PickWord';

const LINES = { none: 'none', solid: 'plain', dashed: 'dashed', dotted: 'dotted', double: 'double' } as const;
const WIDTHS = ['1', '2', '3', '4'] as const;
const WHERE = {
  around: 'allAround',
  top: 'above',
  right: 'onTheRight',
  bottom: 'below2',
  left: 'left',
} as const;

interface Props {
  readonly border: Look['border'];
  /** As the look shows it, side by side. */
  readonly shown: readonly (BorderSide | undefined)[];
  readonly onChange: (border: NonNullable<Look['border']>) => void;
}

/** The line of a look: its style, side, thickness and colour. */
export function BorderEditor({ border, shown, onChange }: Props) {
  const t = useTranslations('bench');
  const side = keysOf(WHERE).find((each) => border?.[each]) ?? 'around';
  const line = border?.[side] ?? shown.find((each) => each !== undefined);
  const put = (where: keyof typeof WHERE, next: BorderSide) => onChange({ [where]: next });
  const base: BorderSide = line ?? { style: 'solid', width: 1, color: '#5a5f69' };
  return (
    <div className={classes.lookLine}>
      <span>{t('line')}</span>
      <PickWord
        label={t('line')}
        value={line?.style ?? 'none'}
        words={eachText(LINES, (key) => t(key))}
        onPick={(style) => (style === 'none' ? onChange({}) : put(side, { ...base, style }))}
      />
      {line && (
        <>
          <PickWord
            label={t('where')}
            value={side}
            words={eachText(WHERE, (key) => t(key))}
            onPick={(where) => put(where, base)}
          />
          <PickWord
            label={t('thickness')}
            value={String(base.width) as (typeof WIDTHS)[number]}
            words={recordOf(WIDTHS, (width) => t('widthPx', { width }))}
            onPick={(width) => put(side, { ...base, width: Number(width) })}
          />
          <PickColor label={t('lineColour')} value={base.color} onPick={(color) => put(side, { ...base, color })} />
        </>
      )}
    </div>
  );
}
