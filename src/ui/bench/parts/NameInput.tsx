import { useTranslations } from 'use-intl';
import classes from './NameInput.module.css';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly placeholder?: string;
  readonly onChange: (name: string) => void;
}

/** The name of a rule in the legend; empty until it is named. */
export function NameInput({ label, value, placeholder, onChange }: Props) {
  const t = useTranslations('bench');
  return (
    <input
      className={classes.named}
      aria-label={label}
      placeholder={placeholder ?? t('nameIt')}
      maxLength={80}
      value={value}
      size={Math.max(value.length, 7)}
      onChange={(event) => onChange(event.currentTarget.value)}
    />
  );
}
