import { ActionIcon } from '@mantine/core';
import { IconPlus, IconX } from '@tabler/icons-react';
import { useEffect, useRef, useState } from 'react';
import classes from '../Bench.module.css';

interface Props {
  /** What one of them is called. */
  readonly label: string;
  readonly words: readonly string[];
  /** What stands between two: "or", "nor". */
  readonly between: string;
  /** What is wrong with a word; undefined where it will do. */
  readonly wrong?: (word: string) => string | undefined;
  readonly onChange: (words: readonly string[]) => void;
}

/** One or several words, each typed in the sentence. One that is emptied stays as it was. */
export function WordList({ label, words, between, wrong = () => undefined, onChange }: Props) {
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
              aria-label={`Remove ${label.toLowerCase()} ${at + 1}`}
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
        aria-label={`Another ${label.toLowerCase()}`}
        onClick={() => {
          setAdded(words.length);
          onChange([...words, 'another word']);
        }}
      >
        <IconPlus size={12} stroke={1.5} />
      </ActionIcon>
    </>
  );
}

interface WordProps {
  readonly label: string;
  readonly word: string;
  readonly isNew: boolean;
  readonly wrong: (word: string) => string | undefined;
  readonly onChange: (word: string) => void;
}

function Word({ label, word, isNew, wrong, onChange }: WordProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (isNew) input.current?.select();
  }, [isNew]);
  const text = typed ?? word;
  const mistake = text.trim() === '' ? 'Type a word' : wrong(text);
  return (
    <input
      ref={input}
      className={classes.threshold}
      aria-label={label}
      aria-invalid={mistake !== undefined}
      title={mistake}
      value={text}
      size={Math.max(text.length, 3)}
      onChange={(event) => {
        const next = event.currentTarget.value;
        setTyped(next);
        if (next.trim() !== '' && wrong(next) === undefined) onChange(next);
      }}
      onBlur={() => setTyped(null)}
    />
  );
}
