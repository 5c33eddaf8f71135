import { useEffect, useRef, useState } from 'react';
import { useTranslations } from 'use-intl';
import classes from '../Bench.module.css';

interface Props {
  readonly label: string;
  readonly word: string;
  readonly isNew: boolean;
  readonly wrong: (word: string) => string | undefined;
  readonly onChange: (word: string) => void;
}

/** A word of the sentence that is typed. While it is empty or wrong, the last one that would do stands. */
export function Word({ label, word, isNew, wrong, onChange }: Props) {
  const t = useTranslations('bench');
  const [typed, setTyped] = useState<string | null>(null);
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (isNew) input.current?.select();
  }, [isNew]);
  const text = typed ?? word;
  const mistake = text.trim() === '' ? t('typeAWord') : wrong(text);
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
