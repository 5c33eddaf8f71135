import { memo } from 'react';
import { useTranslations } from 'use-intl';
import type { Look } from '../../../core/looks/look';
import { Swatch } from '../../legend/Swatch';
import { useLooks } from '../../legend/use-looks';
import { useNewest } from '../../use-newest';
import shared from '../Bench.module.css';
import classes from './PickLook.module.css';
import { Unfold } from '../parts/Unfold';
import { LookEditor } from './LookEditor';
import { SaveLook } from './SaveLook';

interface Props {
  readonly label: string;
  readonly value: Look | null;
  readonly onPick: (look: Look | null) => void;
  /** Offers "no look" too. */
  readonly allowNone?: boolean;
  /** The placeholder without a look. */
  readonly nothing?: string;
}

/** A look: one of the saved ones, or with changes of its own, which can be saved. */
export function PickLook({ onPick, ...rest }: Props) {
  return <LookPopover {...rest} onPick={useNewest(onPick)} />;
}

const LookPopover = memo(function LookPopover({ label, value, onPick, allowNone = false, nothing }: Props) {
  const t = useTranslations('bench');
  const { looks } = useLooks();
  const saved = looks.find((look) => look.id === value?.look);
  const isPlain = saved !== undefined && Object.keys(value ?? {}).length === 1;
  const name =
    value === null
      ? (nothing ?? t('noLook'))
      : saved
        ? isPlain
          ? saved.name
          : t('nameChanged', { name: saved.name })
        : t('customLook');
  return (
    <Unfold
      label={label}
      width={330}
      button={{
        label: `${label}: ${name}`,
        className: shared.pick,
        shows: value ? <Swatch look={value} text={name} /> : name,
      }}
    >
      <div className={classes.savedLooks} role="group" aria-label={t('savedLooks')}>
        {looks.map((look) => (
          <button
            key={look.id}
            type="button"
            aria-pressed={isPlain && look.id === saved.id}
            onClick={() => onPick({ look: look.id })}
          >
            <Swatch look={{ look: look.id }} text={look.name} />
          </button>
        ))}
        {allowNone && (
          <button type="button" aria-pressed={value === null} onClick={() => onPick(null)}>
            {t('noLook')}
          </button>
        )}
      </div>
      {value && <LookEditor look={value} onChange={onPick} />}
      {value && <SaveLook look={value} base={saved} isPlain={isPlain} onSaved={(id) => onPick({ look: id })} />}
    </Unfold>
  );
});
