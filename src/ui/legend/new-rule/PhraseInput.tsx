import { Autocomplete } from '@mantine/core';
import { useEffect, useState, type KeyboardEvent } from 'react';
import { itemAt } from '../../../core/values/item-at';
import {
  completePhrase,
  fieldsInPhrase,
  readPhrase,
  type PhraseField,
  type PhraseReading,
} from '../../../core/rules/suggest/phrase/read-phrase';
import { contentsOf } from '../../../core/rules/suggest/field-contents';
import type { FieldProfile } from '../../../core/rules/suggest/suggest-rules';
import { parseMessage } from '../../../protocol/parse-message';
import { useSession } from '../../sheet/use-session';
import { useLooks } from '../use-looks';
import type { RuleIdea } from '../../../core/rules/shape/rule-idea';
import { ruleSentence, type NamedField } from '../../../core/rules/shape/sentence-words';
import classes from './NewRule.module.css';

const MAX_COMPLETIONS = 7;

interface Props {
  readonly fields: readonly NamedField[];
  readonly onRead: (idea: RuleIdea) => void;
}

/** A rule typed in words, with what may come next from the sheet's own labels, tests and looks. */
export function PhraseInput({ fields: named, onRead }: Props) {
  const [text, setText] = useState('');
  const [isTold, setTold] = useState(false);
  const { looks } = useLooks();
  const fields = useContents(text, named);
  const reading = readPhrase(text, fields, looks);
  const isRead = 'idea' in reading;
  const count = useCount(isRead ? reading.idea : null);
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
        data={text === '' ? [] : completePhrase(text, fields, looks).slice(0, MAX_COMPLETIONS)}
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
        {isRead && `Enter makes: ${ruleSentence(fields, reading.idea)}${count === '' ? '' : `, ${count}`}`}
        {!isRead && isTold && `“${text.slice(0, reading.at).trim()}” is understood; then comes ${expected(reading)}.`}
      </p>
    </div>
  );
}

/** How many cells a rule would give a look, in words; empty until it is known. */
function useCount(idea: RuleIdea | null): string {
  const session = useSession();
  const [count, setCount] = useState('');
  // The same while the idea is equal.
  const asked = idea && JSON.stringify(idea);
  useEffect(() => {
    let isStale = false;
    if (asked !== null)
      void session
        .ask({ kind: 'ask-count', idea: parseMessage<RuleIdea>(asked) })
        .then((found) => !isStale && setCount(found ? `${found.matched} of ${found.read} cells` : ''));
    return () => {
      isStale = true;
      setCount('');
    };
  }, [session, asked]);
  return count;
}

/** The fields, with the contents of those that the phrase asks about once they are known. */
function useContents(text: string, fields: readonly NamedField[]): readonly PhraseField[] {
  const session = useSession();
  const [profiles, setProfiles] = useState<readonly FieldProfile[]>([]);
  const asked = fieldsInPhrase(text, fields).map(({ id }) => id);
  const missing = asked.filter((id) => !profiles.some(({ field }) => field === id)).join(' ');
  useEffect(() => {
    let isStale = false;
    if (missing !== '')
      void session.rules
        .profileEach(missing.split(' '))
        .then((found) => !isStale && setProfiles((known) => [...known, ...found]));
    return () => {
      isStale = true;
    };
  }, [session, missing]);
  return fields.map((field) => {
    const profile = profiles.find((each) => each.field === field.id)?.profile;
    return profile ? { ...field, contents: contentsOf(profile), texts: profile.texts.map((each) => each.text) } : field;
  });
}

/** Up to this many words are all listed. */
const MAX_TOLD = 8;

const expected = ({ expected: what, options }: Exclude<PhraseReading, { idea: RuleIdea }>): string =>
  options.length > 1 && options.length <= MAX_TOLD && !what.includes(itemAt(options, 0))
    ? `${what}: ${options.join(', ')}`
    : what;
