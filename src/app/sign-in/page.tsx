import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { pageTexts } from '../page-texts';
import { database } from '../../server/database';
import { openDemoOwner } from '../../server/people/demo-owner';
import { SignIn } from '../../ui/people/SignIn';
import { settings } from '../../server/settings';
import { internalPath } from '../internal-path';
import { signedIn, type Query } from '../signed-in';

export const dynamic = 'force-dynamic';
const t = pageTexts();
export const metadata: Metadata = { title: t('signInAuxesis') };

export default async function SignInPage({ searchParams }: { readonly searchParams: Promise<Query> }) {
  const { to } = await searchParams;
  const target = internalPath(to);
  if (await signedIn()) redirect(target);
  const demoOwner = await openDemoOwner(database());
  const invitation = /^\/links\/([\w-]+)$/.exec(target)?.[1];
  const { signUp } = settings();
  const mayMakeAccount = signUp === 'anybody' || (signUp === 'invited' && invitation !== undefined);
  const because = target === '/' ? undefined : t('signSeeWhatYou');
  return (
    <SignIn
      to={target}
      demoOwner={demoOwner?.name ?? null}
      because={because}
      invitation={invitation}
      mayMakeAccount={mayMakeAccount}
    />
  );
}
