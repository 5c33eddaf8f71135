import { TextInput } from '@mantine/core';
import { useDeferredValue, useMemo, useState } from 'react';
import { useTranslations } from 'use-intl';
import type { Example } from '../../core/rules/suggest/examples';
import { ExampleTable } from '../examples/ExampleTable';
import classes from './HelpPanel.module.css';

/** A small table that is painted as the words under it say; they can be changed. */
export function LivingExample({ example, label }: { readonly example: Example; readonly label: string }) {
  const t = useTranslations('help');
  const [words, setWords] = useState(example.phrases.join(', '));
  const tried = useDeferredValue(words);
  const shown = useMemo(() => ({ rows: example.rows, phrases: [tried] }), [example, tried]);
  return (
    <div className={classes.example}>
      <ExampleTable example={shown} label={label} />
      <TextInput
        size="xs"
        label={t('tryChangeWords')}
        value={words}
        onChange={(event) => setWords(event.currentTarget.value)}
        onKeyDown={(event) => event.stopPropagation()}
      />
    </div>
  );
}
