import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { database } from '../../../../server/database';
import { readChangesBefore } from '../../../../server/sql/change/read-changes-before';
import { findSheet, type SheetHead } from '../../../../server/sql/sheet/find-sheet';
import { PaperScreen } from '../../../../ui/paper/PaperScreen';

export const dynamic = 'force-dynamic';

interface Props {
  readonly params: Promise<{ id: string }>;
  /** `at`: the sequence of the change after which the sheet is shown. */
  readonly searchParams: Promise<{ at?: string }>;
}

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const sheet = await findSheet(database(), (await params).id);
  return { title: sheet ? `${sheet.name}, to print` : 'Auxesis' };
}

export default async function PaperPage({ params, searchParams }: Props) {
  const sheet = await findSheet(database(), (await params).id);
  if (!sheet) notFound();
  const { at } = await searchParams;
  const sequence = /^\d{1,15}$/.test(at ?? '') ? Number(at) : undefined;
  if (at !== undefined && sequence === undefined) notFound();
  const moment = sequence === undefined ? undefined : await momentOf(sheet, sequence);
  if (sequence !== undefined && moment === undefined) notFound();
  return <PaperScreen id={sheet.id} name={sheet.name} at={sequence === undefined || moment === undefined ? undefined : { sequence, moment }} />;
}

/** When a change was made; for 0, when the sheet was. Undefined where there is no such change. */
async function momentOf({ id, createdAt }: SheetHead, sequence: number): Promise<number | undefined> {
  if (sequence === 0) return createdAt;
  const [change] = await readChangesBefore(database(), id, { before: sequence + 1, limit: 1 });
  return change?.sequence === sequence ? change.at : undefined;
}
