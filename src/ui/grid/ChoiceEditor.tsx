import { Autocomplete } from '@mantine/core';
import { useState, type CSSProperties } from 'react';
import { useTranslations } from 'use-intl';
import { useSession } from '../sheet/use-session';
import classes from './ChoiceEditor.module.css';
import { useEditorKeys } from './use-editor-keys';

interface Props {
  readonly text: string;
  readonly allowed: readonly string[];
  readonly style: CSSProperties;
  readonly onMove: (columns: number, rows: number) => void;
}

/** A cell of a field that has a list of values: they are offered, those that contain the typed text first. */
export function ChoiceEditor({ text, allowed, style, onMove }: Props) {
  const t = useTranslations('grid');
  const session = useSession();
  const { input, onKeyDown } = useEditorKeys(onMove);
  // A cell that is filled offers the whole list until something is typed.
  const [begun] = useState(text);

  return (
    <Autocomplete
      ref={input}
      variant="unstyled"
      aria-label={t('cellContent')}
      className={classes.choice}
      classNames={{ input: classes.choiceInput }}
      style={style}
      defaultDropdownOpened
      limit={100}
      maxDropdownHeight={216}
      data={[...allowed]}
      value={text}
      filter={({ options, search }) =>
        search === begun
          ? options
          : options.filter(
              (option) => 'label' in option && option.label.toLowerCase().includes(search.trim().toLowerCase()),
            )
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
