import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { pageTexts } from '../../../page-texts';
import { isMaker } from '../../../../core/sharing/role';
import { database } from '../../../../server/database';
import { readMuch } from '../../../../server/replicas';
import { historyOf } from '../../../../server/sheets/read-history';
import { HistoryScreen } from '../../../../ui/history/HistoryScreen';
import { historyQuery } from '../../../api/history-query';
import { sheetPageAccess } from '../../../sheet-page-access';
import type { Query } from '../../../signed-in';
import { sheetPageUrl } from '../../../../protocol/sheet-url';

export const dynamic = 'force-dynamic';

interface Props {
  readonly params: Promise<{ id: string }>;
  readonly searchParams: Promise<Query>;
}

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const { sheet } = await historyAccess((await params).id);
  return { title: pageTexts()('nameItsHistory', { name: sheet.name }) };
}

export default async function HistoryPage({ params, searchParams }: Props) {
  const { sheet, access } = await historyAccess((await params).id);
  const { error, value: asked } = historyQuery.validate(await searchParams, { stripUnknown: true });
  if (error) notFound();
  const entries = await readMuch(database(), (sql) => historyOf(sql, sheet.id, asked));
  return (
    <HistoryScreen
      key={JSON.stringify(asked)}
      id={sheet.id}
      name={sheet.name}
      asked={asked}
      first={entries}
      person={access.name}
    />
  );
}

async function historyAccess(id: string) {
  const found = await sheetPageAccess(id, sheetPageUrl(id, 'history'));
  return isMaker(found.access.role) ? found : notFound();
}
