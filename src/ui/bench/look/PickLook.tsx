import { Popover } from '@mantine/core';
import { FIRST_FAMILY } from '../../../core/looks/first-family';
import type { Look } from '../../../core/looks/look';
import { Swatch } from '../../legend/Swatch';
import classes from '../Bench.module.css';
import { LookEditor } from './LookEditor';

interface Props {
  readonly label: string;
  readonly value: Look | null;
  readonly onPick: (look: Look | null) => void;
  /** Offers "no look" too. */
  readonly allowNone?: boolean;
  /** What stands where there is no look yet. */
  readonly nothing?: string;
}

/** A look: one of the saved ones, or with changes of its own. */
export function PickLook({ label, value, onPick, allowNone = false, nothing = 'no look' }: Props) {
  const saved = FIRST_FAMILY.find((look) => look.id === value?.look);
  const isPlain = saved !== undefined && Object.keys(value ?? {}).length === 1;
  const name = value === null ? nothing : saved ? (isPlain ? saved.name : `${saved.name}, changed`) : 'its own look';
  return (
    <Popover position="top-start" shadow="md" trapFocus returnFocus width={330}>
      <Popover.Target>
        <button type="button" className={classes.pick} aria-label={`${label}: ${name}`}>
          {value ? <Swatch look={value} text={name} /> : name}
        </button>
      </Popover.Target>
      <Popover.Dropdown aria-label={label} mah={460} style={{ overflow: 'auto' }}>
        <div className={classes.savedLooks} role="group" aria-label="Saved looks">
          {FIRST_FAMILY.map((look) => (
            <button key={look.id} type="button" aria-pressed={isPlain && look.id === saved.id} onClick={() => onPick({ look: look.id })}>
              <Swatch look={{ look: look.id }} text={look.name} />
            </button>
          ))}
          {allowNone && (
            <button type="button" aria-pressed={value === null} onClick={() => onPick(null)}>
              no look
            </button>
          )}
        </div>
        {value && <LookEditor look={value} onChange={onPick} />}
      </Popover.Dropdown>
    </Popover>
  );
}
