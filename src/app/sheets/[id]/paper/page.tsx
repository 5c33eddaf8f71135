import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { database } from '../../../../server/database';
import { findSheet } from '../../../../server/sql/sheet/find-sheet';
import { PaperScreen } from '../../../../ui/paper/PaperScreen';

export const dynamic = 'force-dynamic';

interface Props {
  readonly params: Promise<{ id: string }>;
}

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const sheet = await findSheet(database(), (await params).id);
  return { title: sheet ? `${sheet.name}, to print` : 'Auxesis' };
}

export default async function PaperPage({ params }: Props) {
  const sheet = await findSheet(database(), (await params).id);
  if (!sheet) notFound();
  return <PaperScreen id={sheet.id} name={sheet.name} />;
}
