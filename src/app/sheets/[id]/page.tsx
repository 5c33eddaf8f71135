import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { database } from '../../../server/database';
import { findSheet } from '../../../server/sql/sheet/find-sheet';
import { SheetScreen } from '../../../ui/sheet/SheetScreen';

export const dynamic = 'force-dynamic';

interface Props {
  readonly params: Promise<{ id: string }>;
}

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const sheet = await findSheet(database(), (await params).id);
  return { title: sheet ? `${sheet.name} · Auxesis` : 'Auxesis' };
}

export default async function SheetPage({ params }: Props) {
  const sheet = await findSheet(database(), (await params).id);
  if (!sheet) notFound();
  return <SheetScreen key={sheet.id} id={sheet.id} name={sheet.name} />;
}
