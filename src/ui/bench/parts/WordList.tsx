import { ActionIcon } from '@mantine/core';
import { IconPlus, IconX } from '@tabler/icons-react';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { Word } from './Word';

interface Props {
  /** The name of one of them. */
  readonly label: string;
  readonly words: readonly string[];
  /** The word between two: "or", "nor". */
  readonly between: string;
  /** The problem with a word; undefined where it is valid. */
  readonly wrong?: (word: string) => string | undefined;
  readonly onChange: (words: readonly string[]) => void;
}

/** One or several words, each typed in the sentence. One that is emptied stays as it was. */
export function WordList({ label, words, between, wrong = () => undefined, onChange }: Props) {
  const t = useTranslations('bench');
  const [added, setAdded] = useState(-1);
  return (
    <>
      {words.map((word, at) => (
        <span key={at}>
          {at > 0 && ` ${between} `}
          <Word
            label={words.length > 1 ? `${label} ${at + 1}` : label}
            word={word}
            isNew={at === added}
            wrong={wrong}
            onChange={(next) => onChange(words.with(at, next))}
          />
          {words.length > 1 && (
            <ActionIcon
              variant="subtle"
              color="ink"
              size="xs"
              aria-label={t('removeLabelAt', { label: label.toLowerCase(), at: at + 1 })}
              onClick={() => onChange(words.toSpliced(at, 1))}
            >
              <IconX size={11} stroke={1.5} />
            </ActionIcon>
          )}
        </span>
      ))}{' '}
      <ActionIcon
        variant="subtle"
        color="ink"
        size="xs"
        aria-label={t('anotherLabel', { label: label.toLowerCase() })}
        onClick={() => {
          setAdded(words.length);
          onChange([...words, t('anotherWord')]);
        }}
      >
        <IconPlus size={12} stroke={1.5} />
      </ActionIcon>
    </>
  );
}
