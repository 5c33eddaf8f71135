import { Autocomplete } from '@mantine/core';
import { useEffect, useRef, useState, type CSSProperties, type KeyboardEvent } from 'react';
import { useSession } from '../sheet/use-session';
import classes from './Grid.module.css';

interface Props {
  readonly text: string;
  readonly allowed: readonly string[];
  readonly style: CSSProperties;
  readonly onMove: (columns: number, rows: number) => void;
}

/** A cell of a field that has a list of values: they are offered, those that hold what is typed first. */
export function ChoiceEditor({ text, allowed, style, onMove }: Props) {
  const session = useSession();
  const input = useRef<HTMLInputElement>(null);
  // Whoever opens a cell that is filled is offered the whole list until they type.
  const [begun] = useState(text);

  useEffect(() => {
    const element = input.current!;
    element.focus({ preventScroll: true });
    element.setSelectionRange(element.value.length, element.value.length);
  }, []);

  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.nativeEvent.isComposing || !session.get().editing) return;
    const isChoosing = event.key === 'Enter' && event.currentTarget.hasAttribute('aria-activedescendant');
    const step = event.shiftKey ? -1 : 1;
    if (event.key === 'Escape') session.cancelEdit();
    else if (isChoosing) return event.stopPropagation();
    else if (event.key === 'Enter' || event.key === 'Tab') {
      if (session.commit(true)) onMove(event.key === 'Tab' ? step : 0, event.key === 'Enter' ? step : 0);
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };

  return (
    <Autocomplete
      ref={input}
      variant="unstyled"
      aria-label="Cell content"
      className={classes.choice}
      classNames={{ input: classes.choiceInput }}
      style={style}
      defaultDropdownOpened
      limit={100}
      maxDropdownHeight={216}
      data={[...allowed]}
      value={text}
      filter={({ options, search }) =>
        search === begun ? options : options.filter((option) => 'label' in option && option.label.toLowerCase().includes(search.trim().toLowerCase()))
      }
      comboboxProps={{ width: 'max-content', position: 'bottom-start', transitionProps: { duration: 0 } }}
      onChange={(value) => session.type(value)}
      onOptionSubmit={(value) => {
        session.type(value);
        if (session.commit(true)) onMove(0, 1);
      }}
      onKeyDown={onKeyDown}
      onBlur={() => session.commit()}
    />
  );
}
