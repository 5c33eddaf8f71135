import { Button, Checkbox, Divider, NativeSelect, Popover, SegmentedControl, TextInput } from '@mantine/core';
import { IconArrowsSort } from '@tabler/icons-react';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { Key } from '../../texts/texts';
import { memberOf } from '../../core/values/typed-keys';
import type { SortKey } from '../../core/edit/sort';
import { FILTER_TESTS, type FilterTest } from '../../protocol/sheet-view';
import { focusGrid } from '../grid/focus-grid';
import { useSession, useSessionState } from '../sheet/use-session';
import shared from './ActionBar.module.css';
import classes from './OrderMenu.module.css';

/** Sorts records for everybody, or filters this reader's own view. */
export function OrderMenu() {
  const t = useTranslations('actions');
  const session = useSession();
  const isFiltered = useSessionState((state) => (state.frame?.filter ?? null) !== null);
  const column = useSessionState((state) => state.selection.anchor.column);
  const [values, setValues] = useState<readonly { text: string; count: number }[]>([]);

  return (
    <Popover
      position="bottom-start"
      trapFocus
      onClose={focusGrid}
      onOpen={() => void session.actions.textsOf(column).then(setValues)}
    >
      <Popover.Target>
        <Button
          variant={isFiltered ? 'light' : 'subtle'}
          color="ink"
          size="compact-sm"
          leftSection={<IconArrowsSort size={16} stroke={1.5} />}
        >
          {isFiltered ? t('filtered') : t('sortAndFilter')}
        </Button>
      </Popover.Target>
      <Popover.Dropdown aria-label={t('sortAndFilter')}>
        <div className={classes.panel}>
          <Order />
          <Divider />
          <Show values={values} />
        </div>
      </Popover.Dropdown>
    </Popover>
  );
}

const ORDERS: { value: SortKey['order']; label: Key<'actions'> }[] = [
  { value: 'rising', label: 'ascending' },
  { value: 'falling', label: 'descending' },
];

/** The order of all records: at once by the selected field, or by several things one after another. */
function Order() {
  const t = useTranslations('actions');
  const session = useSession();
  const frame = useSessionState((state) => state.frame);
  const column = useSessionState((state) => state.selection.anchor.column);
  const [keys, setKeys] = useState<readonly SortKey[]>([]);
  const label = frame?.fields[column]?.label ?? '';
  const sort = (by: readonly SortKey[]) => void session.actions.edit({ do: 'sort-rows', by });
  return (
    <div>
      <p className={shared.label}>{t('sortAllRecordsLabel', { label })}</p>
      <div className={shared.row}>
        {ORDERS.map(({ value, label: words }) => (
          <Button key={value} variant="default" size="compact-sm" onClick={() => sort([{ column, order: value }])}>
            {t(words)}
          </Button>
        ))}
        <Button
          variant="subtle"
          color="ink"
          size="compact-sm"
          disabled={keys.length > 3}
          onClick={() =>
            setKeys([...keys, { column: (column + keys.length) % (frame?.fields.length ?? 1), order: 'rising' }])
          }
        >
          {keys.length ? t('thenBy') : t('addAnotherField')}
        </Button>
      </div>
      {keys.map((key, at) => (
        <SortKeyRow key={at} at={at} sortKey={key} onChange={(next) => setKeys(keys.with(at, next))} />
      ))}
      {keys.length > 0 && (
        <div className={shared.row}>
          <Button size="compact-sm" color="ink" onClick={() => sort(keys)}>
            {t('sort')}
          </Button>
          <Button variant="subtle" color="ink" size="compact-sm" onClick={() => setKeys([])}>
            {t('forget')}
          </Button>
        </div>
      )}
    </div>
  );
}

interface SortKeyRowProps {
  /** Its place among the sort keys. */
  readonly at: number;
  readonly sortKey: SortKey;
  readonly onChange: (key: SortKey) => void;
}

/** One thing that records are sorted by: a field, or whether a rule paints them. */
function SortKeyRow({ at, sortKey, onChange }: SortKeyRowProps) {
  const t = useTranslations('actions');
  const frame = useSessionState((state) => state.frame);
  const legend = useSessionState((state) => state.legend);
  return (
    <div className={shared.row}>
      <NativeSelect
        size="xs"
        aria-label={at ? t('thenByAt', { at: at + 1 }) : t('sortBy')}
        value={'rule' in sortKey ? `rule ${sortKey.rule}` : `field ${sortKey.column}`}
        data={[
          {
            group: t('fields'),
            items: (frame?.fields ?? []).map((field, place) => ({
              value: `field ${place}`,
              label: field.label,
            })),
          },
          { group: t('rule'), items: legend.map(({ id, rule }) => ({ value: `rule ${id}`, label: rule.name })) },
        ]}
        onChange={({ currentTarget: { value } }) =>
          onChange(
            value.startsWith('rule ')
              ? { rule: value.slice(5), order: 'falling' }
              : { column: Number(value.slice(6)), order: sortKey.order },
          )
        }
      />
      <SegmentedControl
        size="xs"
        aria-label={t('order', { at: at + 1 })}
        data={('rule' in sortKey ? PAINTED_ORDERS : ORDERS).map(({ value, label }) => ({ value, label: t(label) }))}
        value={sortKey.order}
        onChange={(order) => onChange({ ...sortKey, order })}
      />
    </div>
  );
}

const PAINTED_ORDERS: typeof ORDERS = [
  { value: 'falling', label: 'first' },
  { value: 'rising', label: 'last' },
];

const TEST_WORDS = {
  contains: 'contains',
  'at least': 'atLeast',
  'at most': 'atMost',
} as const satisfies Record<FilterTest, Key<'actions'>>;

/** Which records are in this reader's own view. */
function Show({ values }: { readonly values: readonly { text: string; count: number }[] }) {
  const t = useTranslations('actions');
  const session = useSession();
  const frame = useSessionState((state) => state.frame);
  const column = useSessionState((state) => state.selection.anchor.column);
  const [test, setTest] = useState<FilterTest>('contains');
  const [value, setValue] = useState('');
  const filter = frame?.filter ?? null;
  const field = frame?.fields[column];

  return (
    <>
      <div role="group" aria-label={t('showOnly')}>
        <p className={shared.label}>{t('filterByLabel', { label: field?.label ?? '' })}</p>
        <form
          className={shared.row}
          onSubmit={(event) => {
            event.preventDefault();
            if (field) session.filterBy(value === '' ? null : { field: field.id, is: test, value });
          }}
        >
          <NativeSelect
            size="xs"
            aria-label={t('condition')}
            value={test}
            data={FILTER_TESTS.map((each) => ({ value: each, label: t(TEST_WORDS[each]) }))}
            onChange={(event) => setTest(memberOf(FILTER_TESTS, event.currentTarget.value))}
          />
          <TextInput
            size="xs"
            aria-label={t('value')}
            value={value}
            onChange={(event) => setValue(event.currentTarget.value)}
          />
          <Button type="submit" variant="default" size="compact-sm">
            {t('show')}
          </Button>
        </form>
        <ShowValues values={values} />
      </div>
      <Button variant="default" size="compact-sm" disabled={!filter} onClick={() => session.filterBy(null)}>
        {t('showAllRecords')}
      </Button>
    </>
  );
}

/** The looks and the values of the field, each to be shown or left out. */
function ShowValues({ values }: { readonly values: readonly { text: string; count: number }[] }) {
  const t = useTranslations('actions');
  const session = useSession();
  const frame = useSessionState((state) => state.frame);
  const legend = useSessionState((state) => state.legend);
  const column = useSessionState((state) => state.selection.anchor.column);
  const filter = frame?.filter ?? null;
  const field = frame?.fields[column];
  const chosen = filter && 'texts' in filter && filter.field === field?.id ? new Set(filter.texts) : null;

  const toggle = (text: string) => {
    const texts = new Set(chosen ?? values.map((one) => one.text));
    if (!texts.delete(text)) texts.add(text);
    show([...texts]);
  };
  const show = (texts: readonly string[]) => field && session.filterBy({ field: field.id, texts });

  return (
    <div className={classes.values}>
      {legend.map(({ id, rule }) => (
        <Checkbox
          key={id}
          size="xs"
          color="ink"
          label={t('matchedByName', { name: rule.name })}
          checked={filter !== null && 'rule' in filter && filter.rule === id}
          onChange={(event) => session.filterBy(event.currentTarget.checked ? { rule: id } : null)}
        />
      ))}
      <Checkbox
        size="xs"
        color="ink"
        label={t('allValues')}
        checked={!chosen}
        indeterminate={chosen !== null && chosen.size > 0}
        onChange={() => (chosen ? session.filterBy(null) : show([]))}
      />
      {values.map(({ text, count }) => (
        <Checkbox
          key={text}
          size="xs"
          color="ink"
          label={`${text === '' ? t('blank') : text} (${count})`}
          checked={chosen ? chosen.has(text) : true}
          onChange={() => toggle(text)}
        />
      ))}
    </div>
  );
}
