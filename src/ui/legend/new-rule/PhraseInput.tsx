import { Autocomplete } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { useEffect, useEffectEvent, useState, type KeyboardEvent } from 'react';
import { useTranslations } from 'use-intl';
import { itemAt } from '../../../core/values/item-at';
import { kindOf } from '../../../core/rules/kinds/registry';
import {
  completePhrase,
  fieldsInPhrase,
  readPhrase,
  type PhraseReading,
} from '../../../core/rules/suggest/phrase/read-phrase';
import type { PhraseSheet } from '../../../core/rules/suggest/phrase/phrase-cursor';
import { contentsOf } from '../../../core/rules/suggest/field-contents';
import { writeArea } from '../../../core/sheet/address';
import { selectedArea, selectedAreas } from '../../grid/engine/selection';
import { useEngineQuery } from '../../sheet/engine/use-engine-query';
import { useSession, useSessionState } from '../../sheet/use-session';
import { Swatch } from '../Swatch';
import { useProfiles } from './use-profiles';
import { useLooks } from '../use-looks';
import type { RuleIdea } from '../../../core/rules/shape/rule-idea';
import { ruleSentence, type NamedField } from '../../../core/rules/shape/sentence-words';
import classes from './NewRule.module.css';

const MAX_COMPLETIONS = 7;
/** How long the text rests before its matches are counted. */
const REST_MS = 150;
/** Looks of one rule that are shown. */
const MAX_LOOKS = 4;

interface Props {
  readonly fields: readonly NamedField[];
  readonly onRead: (ideas: readonly RuleIdea[]) => void;
}

/** Rules typed in words, with what may come next from the sheet's own labels, tests and looks. */
export function PhraseInput({ fields, onRead }: Props) {
  const t = useTranslations('legend');
  const session = useSession();
  const [typed, setTyped] = useState('');
  const text = typed + useSessionState((state) => state.ahead);
  // Enter waits for what the fields hold: the same words may mean another rule then.
  const [isEntered, setEntered] = useState(false);
  const { sheet, isKnown } = usePhraseSheet(text, fields);
  const reading = readPhrase(text, sheet);
  const isRead = 'ideas' in reading;
  // Counting reads all cells: not for each letter.
  const [rested] = useDebouncedValue(text, REST_MS);
  const isReady = isEntered && isKnown && isRead;
  const save = useEffectEvent(() => {
    if (isRead) onRead(reading.ideas);
  });
  useEffect(() => {
    if (isReady) save();
  }, [isReady]);
  const take = (event: KeyboardEvent) => {
    if (event.key !== 'Enter') return;
    // It is taken: with Control too it is not for the bench.
    if (isRead) event.preventDefault();
    setEntered(true);
  };
  return (
    <div className={classes.phrase}>
      <Autocomplete
        label={t('sayItInWords')}
        placeholder={t('oxygenBelowAsAlarm')}
        size="sm"
        data-autofocus
        autoFocus
        value={text}
        data={text === '' ? [] : completePhrase(text, sheet).slice(0, MAX_COMPLETIONS)}
        filter={({ options }) => options}
        comboboxProps={{ withinPortal: false }}
        selectFirstOptionOnChange={!isRead}
        onChange={(next) => {
          setTyped(next);
          session.takeAhead();
          setEntered(false);
        }}
        onKeyDown={take}
      />
      <div className={classes.reading} role="status">
        {isRead && <ReadRules fields={fields} ideas={reading.ideas} text={text} isCounted={rested === text} />}
        {!isRead &&
          isEntered &&
          isKnown &&
          (reading.at === 0
            ? t('beginWithReading', { reading: expected(reading) })
            : t('textUnderstoodThenComes', { text: text.slice(0, reading.at).trim(), reading: expected(reading) }))}
      </div>
    </div>
  );
}

/** What Enter will save. */
function ReadRules({
  fields,
  ideas,
  text,
  isCounted,
}: {
  readonly fields: readonly NamedField[];
  readonly ideas: readonly RuleIdea[];
  readonly text: string;
  readonly isCounted: boolean;
}) {
  const t = useTranslations('legend');
  return (
    <>
      {t('pressEnterToSave')}
      <ul className={classes.read}>
        {ideas.map((idea, at) => (
          <li key={at}>
            <LooksOf idea={idea} /> {ruleSentence(fields, idea)}
            {idea.paints === 'record' && t('paintsWholeRecord')}
            {isCounted && <MatchWords key={text} idea={idea} />}
          </li>
        ))}
      </ul>
    </>
  );
}

/** The looks that a rule would give. */
function LooksOf({ idea: { when, look } }: { readonly idea: RuleIdea }) {
  const looks = kindOf(when).outcomeLooks(when) ?? [look ?? null];
  return looks
    .filter((each) => each !== null)
    .slice(0, MAX_LOOKS)
    .map((each, at) => <Swatch key={at} look={each} text="9.1" isSmall />);
}

/** How many cells a rule would give a look; nothing until it is known. */
function MatchWords({ idea }: { readonly idea: RuleIdea }) {
  const t = useTranslations('legend');
  const count = useEngineQuery({ kind: 'ask-count', idea });
  return count && t('matchedOfReadCells', { matched: count.matched, read: count.read });
}

/** What the phrase may name: fields with the contents of those that it asks about once they are known, looks, cells. */
function usePhraseSheet(
  text: string,
  named: readonly NamedField[],
): { readonly sheet: PhraseSheet; readonly isKnown: boolean } {
  const { looks } = useLooks();
  const selection = useSessionState((state) => state.selection);
  const { left, right } = selectedArea(selection);
  const selected = {
    fields: named.slice(left, right + 1).map(({ id }) => id),
    cells: selectedAreas(selection).map(writeArea).join(' '),
  };
  const { profiles, isCurrent } = useProfiles(fieldsInPhrase(text, { fields: named, selected }));
  const fields = named.map((field) => {
    const profile = profiles.find((each) => each.field === field.id)?.profile;
    return profile ? { ...field, contents: contentsOf(profile), texts: profile.texts.map((each) => each.text) } : field;
  });
  return { sheet: { fields, looks, selected }, isKnown: isCurrent };
}

/** Up to this many words are all listed. */
const MAX_TOLD = 8;

const expected = ({ expected: what, options }: Exclude<PhraseReading, { ideas: readonly RuleIdea[] }>): string =>
  options.length > 1 && options.length <= MAX_TOLD && !what.includes(itemAt(options, 0))
    ? `${what}: ${options.join(', ')}`
    : what;
