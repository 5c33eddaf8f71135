import { ColorInput, ColorPicker } from '@mantine/core';
import { useTranslations } from 'use-intl';
import { PALETTES } from '../../../core/looks/palettes';
import classes from './PickColor.module.css';
import { Unfold } from './Unfold';

/** Quiet and strong colours that go together, and greys. */
const SWATCHES = [...PALETTES['okabe-ito'], ...PALETTES.set2, '#ffffff', '#d9d9d9', '#969696', '#525252', '#111111'];

interface Props {
  readonly label: string;
  readonly value: string;
  readonly onPick: (color: string) => void;
}

/** A colour: from swatches that go together, by hand, as #rrggbb, or from the screen. */
export function PickColor({ label, value, onPick }: Props) {
  const t = useTranslations('bench');
  const pick = (color: string) => /^#[0-9a-f]{6}$/i.test(color) && onPick(color);
  const shared = { value, swatches: SWATCHES, swatchesPerRow: 10, onChange: pick };
  return (
    <Unfold
      label={label}
      button={{ label: `${label}: ${value}`, className: classes.color, style: { background: value } }}
    >
      {(isNarrow) =>
        isNarrow ? (
          <ColorPicker {...shared} format="hex" fullWidth />
        ) : (
          <ColorInput
            {...shared}
            aria-label={label}
            size="xs"
            w={210}
            popoverProps={{ withinPortal: false }}
            eyeDropperButtonProps={{ 'aria-label': t('takeColourFromScreen') }}
          />
        )
      }
    </Unfold>
  );
}
