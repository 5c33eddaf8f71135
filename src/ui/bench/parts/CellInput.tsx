import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { parseAddress, parseRanges, writeArea } from '../../../core/sheet/address';
import { selectedArea } from '../../grid/engine/selection';
import { useSession } from '../../sheet/use-session';
import { useNewest } from '../../use-newest';
import classes from '../Bench.module.css';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly placeholder?: string;
  /** One cell, or ranges. */
  readonly takes: 'cell' | 'ranges';
  readonly onChange: (address: string) => void;
}

/** The address of cells: typed, or pointed at on the grid while this has the focus. */
export function CellInput({ label, value, placeholder, takes, onChange }: Props) {
  const t = useTranslations('bench');
  const session = useSession();
  const [typed, setTyped] = useState<string | null>(null);
  const take = useNewest(onChange);
  const text = typed ?? value;
  const isRead = (address: string) => (takes === 'cell' ? parseAddress(address) : parseRanges(address)) !== undefined;
  return (
    <input
      className={classes.threshold}
      aria-label={label}
      placeholder={placeholder}
      aria-invalid={text !== '' && !isRead(text)}
      title={t('typeAddressClickCell')}
      value={text}
      size={Math.max(text.length, text === '' ? (placeholder?.length ?? 3) : 3)}
      onFocus={() =>
        session.pointing.want((selection) => {
          const area = selectedArea(selection);
          setTyped(null);
          take(writeArea(takes === 'cell' ? { ...area, right: area.left, bottom: area.top } : area));
        })
      }
      onChange={(event) => {
        const next = event.currentTarget.value;
        setTyped(next);
        if (isRead(next)) onChange(next.toUpperCase());
      }}
      onBlur={() => {
        session.pointing.want(null);
        setTyped(null);
      }}
    />
  );
}
