import { ColorInput } from '@mantine/core';
import { useTranslations } from 'use-intl';
import shared from './ActionBar.module.css';
import classes from './Swatches.module.css';

interface Props {
  readonly label: string;
  readonly colors: readonly string[];
  readonly chosen: string | undefined;
  readonly onPick: (color: string | null) => void;
}

/** A few colours that go together, none, or any other. */
export function Swatches({ label, colors, chosen, onPick }: Props) {
  const t = useTranslations('actions');
  return (
    <div role="group" aria-label={label}>
      <div className={shared.swatches}>
        <span className={shared.label}>{label}</span>
        <button
          type="button"
          className={`${classes.swatch} ${classes.none}`}
          aria-label={t('labelNone', { label })}
          aria-pressed={chosen === undefined}
          onMouseDown={(event) => event.preventDefault()}
          onClick={() => onPick(null)}
        />
        {colors.map((color) => (
          <button
            key={color}
            type="button"
            className={classes.swatch}
            style={{ background: color }}
            aria-label={`${label}: ${color}`}
            aria-pressed={chosen === color}
            onMouseDown={(event) => event.preventDefault()}
            onClick={() => onPick(color)}
          />
        ))}
        <ColorInput
          aria-label={t('labelAnotherColour', { label })}
          size="xs"
          w={104}
          value={chosen ?? ''}
          placeholder={t('rrggbb')}
          eyeDropperButtonProps={{ 'aria-label': t('labelColourFromScreen', { label }) }}
          onChangeEnd={(color) => /^#[0-9a-f]{6}$/i.test(color) && onPick(color)}
        />
      </div>
    </div>
  );
}
