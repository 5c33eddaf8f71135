'use client';

import { NativeSelect, TextInput, useComputedColorScheme } from '@mantine/core';
import Link from 'next/link';
import { useCallback, useState } from 'react';
import { useTranslations } from 'use-intl';
import { StartFromExample } from './StartFromExample';
import { foldText } from '../../core/values/fold-text';
import { memberOf } from '../../core/values/typed-keys';
import type { DeskSheetSummary } from '../../protocol/sheet-summary';
import { FileDrop } from '../import/FileDrop';
import { ImportScreen } from '../import/ImportScreen';
import { Page } from '../page/Page';
import { PersonMenu } from '../people/PersonMenu';
import classes from './Desk.module.css';
import { LinkTable } from '../linked/LinkTable';
import { DeskSheet } from './DeskSheet';
import { NewSheet } from './NewSheet';

interface Props {
  readonly sheets: readonly DeskSheetSummary[];
  readonly person: string;
  /** Whether this server links tables of databases. */
  readonly mayLink: boolean;
}

/** The start page: the sheets, a new one, and files to import. */
export function Desk({ sheets, person, mayLink }: Props) {
  const t = useTranslations('desk');
  const [file, setFile] = useState<File | null>(null);
  const leave = useCallback(() => setFile(null), []);
  if (file) return <ImportScreen file={file} leave={leave} />;
  return (
    <Page
      title={t('yourSheets')}
      lead={t('openSheetCreateOne')}
      width="wide"
      before={
        <Link href="/findings" className={classes.findings}>
          {t('findings')}
        </Link>
      }
      after={<PersonMenu person={{ name: person, hasAccount: true }} />}
    >
      <StartFromExample isOpen={sheets.length === 0} beside={<NewSheet />} after={mayLink && <LinkTable />}>
        <FileDrop take={setFile} />
      </StartFromExample>
      {sheets.length > 0 && <SheetList sheets={sheets} />}
    </Page>
  );
}

/** With fewer sheets than these nobody searches. */
const MANY = 5;

const ORDERS = ['changed', 'name', 'new'] as const;
type Order = (typeof ORDERS)[number];
const ORDER_WORDS = { changed: 'lastChanged', name: 'name', new: 'newFindings' } as const satisfies Record<
  Order,
  string
>;

/** The sheets, searched by name and sorted. */
function SheetList({ sheets }: { readonly sheets: readonly DeskSheetSummary[] }) {
  const t = useTranslations('desk');
  const [query, setQuery] = useState('');
  const [order, setOrder] = useState<Order>('changed');
  const scheme = useComputedColorScheme('light');
  const found = sheets.filter(({ name }) => foldText(name).includes(foldText(query)));
  const sorted = order === 'changed' ? found : found.toSorted(COMPARE[order]);
  return (
    <>
      {sheets.length >= MANY && (
        <div className={classes.search}>
          <TextInput
            aria-label={t('searchYourSheets')}
            placeholder={t('search')}
            value={query}
            onChange={(event) => setQuery(event.currentTarget.value)}
          />
          <NativeSelect
            aria-label={t('sortBy')}
            value={order}
            data={ORDERS.map((value) => ({ value, label: t(ORDER_WORDS[value]) }))}
            onChange={(event) => setOrder(memberOf(ORDERS, event.currentTarget.value))}
          />
        </div>
      )}
      <ul className={classes.list}>
        {sorted.map((sheet) => (
          <DeskSheet key={sheet.id} sheet={sheet} scheme={scheme} />
        ))}
      </ul>
      {sorted.length === 0 && <p role="status">{t('noSheetHasThese')}</p>}
    </>
  );
}

type Compare = (one: DeskSheetSummary, other: DeskSheetSummary) => number;
const COMPARE: Record<Exclude<Order, 'changed'>, Compare> = {
  name: (one, other) => one.name.localeCompare(other.name),
  new: (one, other) => other.unseen - one.unseen,
};
