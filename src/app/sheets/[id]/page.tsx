import type { Metadata } from 'next';
import { headers } from 'next/headers';
import { pageTexts } from '../../page-texts';
import { isMaker, READER_ROLES } from '../../../core/sharing/role';
import { database } from '../../../server/database';
import { isLeftOut, LEFT_OUT } from '../../../server/sheets/left-out';
import { EarlyStart } from '../../../ui/sheet/engine/EarlyStart';
import { lookedAt, openRequest } from '../../../ui/sheet/engine/open-request';
import { SheetScreen } from '../../../ui/sheet/SheetScreen';
import { readerLocale } from '../../reader-locale';
import { sheetPageAccess } from '../../sheet-page-access';
import type { Query } from '../../signed-in';
import { sheetPageUrl } from '../../../protocol/sheet-url';

export const dynamic = 'force-dynamic';

interface Props {
  readonly params: Promise<{ id: string }>;
  /** `as`: the role to preview, for owner and editors; `row` and `field`: the cell to go to. */
  readonly searchParams: Promise<Query>;
}

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const { id } = await params;
  const { sheet } = await sheetPageAccess(id, sheetPageUrl(id));
  return { title: pageTexts()('nameAuxesis', { name: sheet.name }) };
}

export default async function SheetPage({ params, searchParams }: Props) {
  const { id } = await params;
  const { as: asked, row, field } = await searchParams;
  const { sheet, access } = await sheetPageAccess(id, sheetPageUrl(id));
  const as = isMaker(access.role) ? READER_ROLES.find((role) => role === asked) : undefined;
  const notice = isMaker(access.role) && (await isLeftOut(database(), sheet.id)) ? LEFT_OUT : undefined;
  const person = { name: access.name, hasAccount: access.author.startsWith('person '), key: access.author };
  const looked = lookedAt({ role: access.role, as, person: person.key, locale: await readerLocale() });
  return (
    <>
      <EarlyStart open={openRequest(sheet.id, looked)} nonce={(await headers()).get('x-nonce') ?? ''} />
      <SheetScreen
        key={`${sheet.id} ${as}`}
        id={sheet.id}
        name={sheet.name}
        role={access.role}
        person={person}
        as={as}
        notice={notice}
        at={typeof row === 'string' && typeof field === 'string' ? { row, field } : undefined}
      />
    </>
  );
}
