import { Menu } from '@mantine/core';
import { memo, useContext, type ReactNode } from 'react';
import { itemAt } from '../../../core/values/item-at';
import { useNewest } from '../../use-newest';
import classes from '../Bench.module.css';
import { WithinPopover } from './within-popover';

export interface PickOption<K extends string = string> {
  readonly id: K;
  readonly words: ReactNode;
}

interface Props<K extends string> {
  /** The accessible name of the choice, for people who do not see the sentence around it. */
  readonly label: string;
  readonly value: string;
  readonly shown: ReactNode;
  readonly options: readonly PickOption<K>[];
  readonly onPick: (id: K) => void;
}

/** An underlined word of the sentence that offers what may stand in its place. */
export function Pick<K extends string>({ options, onPick, ...rest }: Props<K>) {
  const pick = useNewest((id: string) => {
    const option = options.find((each) => each.id === id);
    if (option) onPick(option.id);
  });
  return <PickMenu {...rest} options={options} onPick={pick} />;
}

/** While a threshold is dragged most words of the sentence stay as they are: their menus are not rendered again. */
const PickMenu = memo(function PickMenu({ label, value, shown, options, onPick }: Props<string>) {
  const isWithin = useContext(WithinPopover);
  return (
    <Menu position="top-start" width="max-content" withinPortal={!isWithin}>
      <Menu.Target>
        <button
          type="button"
          className={classes.pick}
          aria-label={`${label}: ${typeof shown === 'string' ? shown : value}`}
        >
          {shown}
        </button>
      </Menu.Target>
      <Menu.Dropdown mah={300} style={{ overflow: 'auto' }}>
        {options.map((option) => (
          <Menu.Item
            key={option.id}
            fw={option.id === value ? 600 : undefined}
            aria-current={option.id === value || undefined}
            onClick={() => onPick(option.id)}
          >
            {option.words}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}, isSame);

/** Words that are not plain text are distinguished by their ids. */
function isSame(one: Props<string>, other: Props<string>): boolean {
  const isAlike = (a: ReactNode, b: ReactNode): boolean => a === b || (typeof a === 'object' && typeof b === 'object');
  return (
    one.label === other.label &&
    one.value === other.value &&
    isAlike(one.shown, other.shown) &&
    one.options.length === other.options.length &&
    one.options.every(
      ({ id, words }, at) => id === itemAt(other.options, at).id && isAlike(words, itemAt(other.options, at).words),
    )
  );
}
