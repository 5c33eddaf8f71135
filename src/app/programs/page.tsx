import { describedRequests } from '../../protocol/programs/openapi';
import { settings } from '../../server/settings';
import { ProgramsPage } from '../../ui/programs/ProgramsPage';

export const dynamic = 'force-dynamic';

/** How programs ask. Nobody needs an account to read it. */
export default async function Programs({
  searchParams,
}: {
  readonly searchParams: Promise<{ readonly sheet?: string }>;
}) {
  const { sheet } = await searchParams;
  return (
    <ProgramsPage
      requests={describedRequests()}
      address={settings().publicUrl}
      sheet={sheet !== undefined && /^[\w-]+$/.test(sheet) ? sheet : 'station-readings'}
    />
  );
}
