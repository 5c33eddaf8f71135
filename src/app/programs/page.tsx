import { headers } from 'next/headers';
import { describedRequests } from '../../protocol/programs/openapi';
import { ProgramsPage } from '../../ui/programs/ProgramsPage';

export const dynamic = 'force-dynamic';

/** How programs ask. Nobody needs an account to read it. */
export default async function Programs({ searchParams }: { readonly searchParams: Promise<{ readonly sheet?: string }> }) {
  const { sheet } = await searchParams;
  const given = await headers();
  const address = `${given.get('x-forwarded-proto') ?? 'http'}://${given.get('host') ?? 'localhost'}`;
  return (
    <ProgramsPage
      requests={describedRequests()}
      address={address}
      sheet={sheet !== undefined && /^[\w-]+$/.test(sheet) ? sheet : 'station-readings'}
    />
  );
}
