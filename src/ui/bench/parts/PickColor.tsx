import { ColorInput, Popover } from '@mantine/core';
import { useContext } from 'react';
import { PALETTES } from '../../../core/looks/palettes';
import classes from './PickColor.module.css';
import { WithinPopover } from './within-popover';

/** Quiet and strong colours that go together, and greys. */
const SWATCHES = [...PALETTES['okabe-ito'], ...PALETTES.set2, '#ffffff', '#d9d9d9', '#969696', '#525252', '#111111'];

interface Props {
  readonly label: string;
  readonly value: string;
  readonly onPick: (color: string) => void;
}

/** A colour: from swatches that go together, by hand, as #rrggbb, or from the screen. */
export function PickColor({ label, value, onPick }: Props) {
  const isWithin = useContext(WithinPopover);
  return (
    <Popover position="top-start" shadow="md" trapFocus withinPortal={!isWithin}>
      <Popover.Target>
        <button
          type="button"
          className={classes.color}
          aria-label={`${label}: ${value}`}
          style={{ background: value }}
        />
      </Popover.Target>
      <Popover.Dropdown>
        <ColorInput
          aria-label={label}
          size="xs"
          w={210}
          popoverProps={{ withinPortal: false }}
          value={value}
          swatches={SWATCHES}
          swatchesPerRow={10}
          eyeDropperButtonProps={{ 'aria-label': 'Take a colour from the screen' }}
          onChange={(color) => /^#[0-9a-f]{6}$/i.test(color) && onPick(color)}
        />
      </Popover.Dropdown>
    </Popover>
  );
}
