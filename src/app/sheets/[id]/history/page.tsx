import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { database } from '../../../../server/database';
import { historyOf } from '../../../../server/sheets/read-history';
import { findSheet } from '../../../../server/sql/sheet/find-sheet';
import { HistoryScreen } from '../../../../ui/history/HistoryScreen';

export const dynamic = 'force-dynamic';

interface Props {
  readonly params: Promise<{ id: string }>;
  readonly searchParams: Promise<{ field?: string; row?: string }>;
}

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const sheet = await findSheet(database(), (await params).id);
  return { title: sheet ? `${sheet.name}, its history` : 'Auxesis' };
}

export default async function HistoryPage({ params, searchParams }: Props) {
  const sheet = await findSheet(database(), (await params).id);
  if (!sheet) notFound();
  const { field, row } = await searchParams;
  const asked = { field, row };
  const entries = await historyOf(database(), sheet.id, asked);
  return <HistoryScreen key={JSON.stringify(asked)} id={sheet.id} name={sheet.name} asked={asked} first={entries} />;
}
