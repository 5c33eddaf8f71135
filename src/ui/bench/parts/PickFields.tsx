import { Checkbox, Popover } from '@mantine/core';
import { useEffect, useState } from 'react';
import { useTranslations } from 'use-intl';
import { fieldsWords } from '../../../core/rules/shape/sentence-words';
import type { FieldId } from '../../../core/sheet/ids';
import { useSessionState } from '../../sheet/use-session';
import classes from '../Bench.module.css';

interface Props {
  readonly label: string;
  readonly value: readonly FieldId[];
  /** The word between two of them. */
  readonly between?: 'or' | 'and';
  /** True where it opens as it appears, since it is what comes next. */
  readonly opensAtOnce?: boolean;
  readonly onPick: (fields: readonly FieldId[]) => void;
}

/** One or several fields of the sheet, in the sheet's order. At least one stays. */
export function PickFields({ label, value, between = 'or', opensAtOnce = false, onPick }: Props) {
  const t = useTranslations('bench');
  const [isOpen, setOpen] = useState(false);
  useEffect(() => {
    // The menu that it was chosen from gives its own focus back first.
    const opening = opensAtOnce ? setTimeout(() => setOpen(true)) : undefined;
    return () => clearTimeout(opening);
  }, [opensAtOnce]);
  const fields = useSessionState((state) => state.frame?.fields) ?? [];
  const there = fields.filter((field) => value.includes(field.id)).map(({ id }) => id);
  const shown = fieldsWords(fields, there, between) || t('aRemovedField');
  const toggle = (id: FieldId) => {
    const wanted = value.includes(id) ? value.filter((other) => other !== id) : [...value, id];
    if (wanted.length) onPick(fields.filter((field) => wanted.includes(field.id)).map((field) => field.id));
  };
  return (
    <Popover position="top-start" shadow="md" trapFocus returnFocus opened={isOpen} onChange={setOpen}>
      <Popover.Target>
        <button
          type="button"
          className={classes.pick}
          aria-label={`${label}: ${shown}`}
          onClick={() => setOpen(!isOpen)}
        >
          {shown}
        </button>
      </Popover.Target>
      <Popover.Dropdown aria-label={label} mah={320} style={{ overflow: 'auto' }}>
        {fields.map((field) => (
          <Checkbox
            key={field.id}
            my={6}
            color="ink"
            label={field.label}
            checked={value.includes(field.id)}
            onChange={() => toggle(field.id)}
          />
        ))}
      </Popover.Dropdown>
    </Popover>
  );
}
