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
  const group = typeof value === 'object' ? value.group : undefined;
  const nameOf = (id: string) => `its ${fields.find((field) => field.id === id)?.label ?? 'removed field'}`;
  const others = fields.filter((field) => field.id !== except?.id);
  const options = [
    { id: 'all', words: 'all' },
    { id: 'field', words: 'its own field' },
    ...others.map((field) => ({ id: `group ${field.id}`, words: nameOf(field.id) })),
  ];
  return (
    <Pick
      label="Among"
      value={group === undefined ? String(value) : `group ${group}`}
      shown={group === undefined ? (value === 'field' ? 'its own field' : 'all') : nameOf(group)}
      options={options}
      onPick={(id) => onPick(id === 'all' || id === 'field' ? id : { group: id.slice('group '.length) })}
    />
  );
}
