import { useTranslations } from 'use-intl';
import type { Per } from '../../../core/rules/compile/grouping';
import type { ShownField } from '../../../protocol/sheet-view';
import { Pick } from './Pick';

interface Props {
  readonly value: Per | undefined;
  readonly fields: readonly ShownField[];
  /** The fields that are read: nothing is compared within groups of its own values. */
  readonly except: ShownField | undefined;
  readonly onPick: (per: Per) => void;
}

/** Over which numbers a statistic runs. */
export function PickPer({ value = 'all', fields, except, onPick }: Props) {
  const t = useTranslations('bench');
  const group = typeof value === 'object' ? value.group : undefined;
  const nameOf = (id: string) =>
    t('itsLabel', { label: fields.find((field) => field.id === id)?.label ?? t('removedField') });
  const others = fields.filter((field) => field.id !== except?.id);
  const options = [
    { id: 'all', words: t('allValues') },
    { id: 'field', words: t('itsOwnField') },
    ...others.map((field) => ({ id: `group ${field.id}`, words: nameOf(field.id) })),
  ];
  return (
    <Pick
      label={t('among2')}
      value={group === undefined ? String(value) : `group ${group}`}
      shown={group === undefined ? (value === 'field' ? t('itsOwnField') : t('allValues')) : nameOf(group)}
      options={options}
      onPick={(id) => onPick(id === 'all' || id === 'field' ? id : { group: id.slice('group '.length) })}
    />
  );
}
