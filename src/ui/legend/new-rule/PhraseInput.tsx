import { Autocomplete } from '@mantine/core';
import { useState, type KeyboardEvent } from 'react';
import { itemAt } from '../../../core/values/item-at';
import { completePhrase, readPhrase, type PhraseReading } from '../../../core/rules/suggest/phrase/read-phrase';
import type { RuleIdea } from '../../../core/rules/shape/rule-idea';
import { ruleSentence, type NamedField } from '../../../core/rules/shape/sentence-words';
import classes from './NewRule.module.css';

const MAX_COMPLETIONS = 7;

interface Props {
  readonly fields: readonly NamedField[];
  readonly onRead: (idea: RuleIdea) => void;
}

/** A rule typed in words, with what may come next from the sheet's own labels, tests and looks. */
export function PhraseInput({ fields, onRead }: Props) {
  const [text, setText] = useState('');
  const [isTold, setTold] = useState(false);
  const reading = readPhrase(text, fields);
  const isRead = 'idea' in reading;
  const take = (event: KeyboardEvent) => {
    if (event.key !== 'Enter') return;
    if (isRead) onRead(reading.idea);
    else setTold(true);
  };
  return (
    <div className={classes.phrase}>
      <Autocomplete
        label="Say it in words"
        placeholder="oxygen below 5 as alarm"
        size="sm"
        data-autofocus
        autoFocus
        value={text}
        data={text === '' ? [] : completePhrase(text, fields).slice(0, MAX_COMPLETIONS)}
        filter={({ options }) => options}
        comboboxProps={{ withinPortal: false }}
        selectFirstOptionOnChange={!isRead}
        onChange={(next) => {
          setText(next);
          setTold(false);
        }}
        onKeyDown={take}
      />
      <p className={classes.reading} role="status">
        {isRead && `Enter makes: ${ruleSentence(fields, reading.idea)}`}
        {!isRead && isTold && `“${text.slice(0, reading.at).trim()}” is understood; then comes ${expected(reading)}.`}
      </p>
    </div>
  );
}

/** Up to this many words are all listed. */
const MAX_TOLD = 8;

const expected = ({ expected: what, options }: Exclude<PhraseReading, { idea: RuleIdea }>): string =>
  options.length > 1 && options.length <= MAX_TOLD && !what.includes(itemAt(options, 0))
    ? `${what}: ${options.join(', ')}`
    : what;
