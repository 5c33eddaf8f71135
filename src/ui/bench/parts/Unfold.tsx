import { Popover } from '@mantine/core';
import { useMediaQuery } from '@mantine/hooks';
import { useContext, useState, type CSSProperties, type KeyboardEvent, type ReactNode } from 'react';
import classes from './Unfold.module.css';
import { WithinPopover } from './within-popover';

interface Props {
  readonly label: string;
  /** The button that opens it, in words with what is chosen. */
  readonly button: {
    readonly label: string;
    readonly className: string | undefined;
    readonly style?: CSSProperties;
    readonly shows?: ReactNode;
  };
  readonly width?: number;
  readonly children: ReactNode | ((isNarrow: boolean) => ReactNode);
}

/**
 * What opens from a word of the bench: over the sheet, or on a narrow screen under the word, where it makes room for
 * itself and covers nothing.
 */
export function Unfold({ label, button, width, children }: Props) {
  const isNarrow = useMediaQuery('(max-width: 700px)', false, { getInitialValueInEffect: false }) ?? false;
  const isWithin = useContext(WithinPopover);
  const [isOpen, setOpen] = useState(false);
  const target = (
    <button
      type="button"
      className={button.className}
      style={button.style}
      aria-label={button.label}
      aria-expanded={isOpen}
      onClick={() => setOpen(!isOpen)}
    >
      {button.shows}
    </button>
  );
  const content = isOpen && (typeof children === 'function' ? children(isNarrow) : children);
  if (!isNarrow)
    return (
      <Popover
        position="top-start"
        shadow="md"
        trapFocus
        returnFocus
        opened={isOpen}
        onChange={setOpen}
        withinPortal={!isWithin}
        {...(width === undefined ? {} : { width })}
      >
        <Popover.Target>{target}</Popover.Target>
        <Popover.Dropdown aria-label={label}>
          <WithinPopover value={true}>{content}</WithinPopover>
        </Popover.Dropdown>
      </Popover>
    );
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key !== 'Escape' || event.defaultPrevented) return;
    event.preventDefault();
    setOpen(false);
  };
  return (
    <>
      {target}
      {isOpen && (
        <div className={classes.below} role="dialog" aria-label={label} onKeyDown={onKeyDown}>
          {content}
        </div>
      )}
    </>
  );
}
