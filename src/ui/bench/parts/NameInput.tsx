import classes from '../Bench.module.css';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly onChange: (name: string) => void;
}

/** What something is called in the legend; empty until it is named. */
export function NameInput({ label, value, onChange }: Props) {
  return (
    <input
      className={classes.named}
      aria-label={label}
      placeholder="name it"
      maxLength={80}
      value={value}
      size={Math.max(value.length, 7)}
      onChange={(event) => onChange(event.currentTarget.value)}
    />
  );
}
