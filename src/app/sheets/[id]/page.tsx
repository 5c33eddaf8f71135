import type { Metadata } from 'next';
import { SheetScreen } from '../../../ui/sheet/SheetScreen';
import { sheetPageAccess } from '../../sheet-page-access';

export const dynamic = 'force-dynamic';

interface Props {
  readonly params: Promise<{ id: string }>;
}

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const { id } = await params;
  const { sheet } = await sheetPageAccess(id, `/sheets/${id}`);
  return { title: `${sheet.name} · Auxesis` };
}

export default async function SheetPage({ params }: Props) {
  const { id } = await params;
  const { sheet, access } = await sheetPageAccess(id, `/sheets/${id}`);
  return <SheetScreen key={sheet.id} id={sheet.id} name={sheet.name} role={access.role} person={access.name} />;
}
