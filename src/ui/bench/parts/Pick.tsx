import { Menu } from '@mantine/core';
import type { ReactNode } from 'react';
import classes from '../Bench.module.css';

export interface PickOption {
  readonly id: string;
  readonly words: ReactNode;
}

interface Props {
  /** What is picked, for people who do not see the sentence around it. */
  readonly label: string;
  readonly value: string;
  readonly shown: ReactNode;
  readonly options: readonly PickOption[];
  readonly onPick: (id: string) => void;
}

/** An underlined word of the sentence that offers what may stand in its place. */
export function Pick({ label, value, shown, options, onPick }: Props) {
  return (
    <Menu position="top-start" width="max-content">
      <Menu.Target>
        <button type="button" className={classes.pick} aria-label={`${label}: ${typeof shown === 'string' ? shown : value}`}>
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
}
