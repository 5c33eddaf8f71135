import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { pageTexts } from '../../../page-texts';
import { isMaker } from '../../../../core/sharing/role';
import { database } from '../../../../server/database';
import { readChangesBefore } from '../../../../server/sql/change';
import type { SheetHead } from '../../../../server/sql/sheet';
import { PaperScreen } from '../../../../ui/paper/PaperScreen';
import { sequence as changeSequence } from '../../../api/read-query';
import { sheetPageAccess } from '../../../sheet-page-access';
import type { Query } from '../../../signed-in';
import { sheetPageUrl } from '../../../../protocol/sheet-url';

export const dynamic = 'force-dynamic';

interface Props {
  readonly params: Promise<{ id: string }>;
  /** `at`: the sequence of the change after which the sheet is shown. */
  readonly searchParams: Promise<Query>;
}

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const { id } = await params;
  const { sheet } = await sheetPageAccess(id, sheetPageUrl(id, 'paper'));
  return { title: pageTexts()('nameToPrint', { name: sheet.name }) };
}

export default async function PaperPage({ params, searchParams }: Props) {
  const { id } = await params;
  const { sheet, access } = await sheetPageAccess(id, sheetPageUrl(id, 'paper'));
  const { at } = await searchParams;
  const { error, value: sequence } = changeSequence.validate(at);
  // The past is for those who get the history.
  if (error || (sequence !== undefined && !isMaker(access.role))) notFound();
  const moment = sequence === undefined ? undefined : await momentOf(sheet, sequence);
  if (sequence !== undefined && moment === undefined) notFound();
  return (
    <PaperScreen
      id={sheet.id}
      name={sheet.name}
      role={access.role}
      at={sequence === undefined || moment === undefined ? undefined : { sequence, moment }}
    />
  );
}

/** When a change was made; for 0, when the sheet was. Undefined where there is no such change. */
async function momentOf({ id, createdAt }: SheetHead, sequence: number): Promise<number | undefined> {
  if (sequence === 0) return createdAt;
  const [change] = await readChangesBefore(database(), id, { before: sequence + 1, limit: 1 });
  return change?.sequence === sequence ? change.at : undefined;
}
