import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { database } from '../../server/database';
import { openDemoOwner } from '../../server/people/demo-owner';
import { SignIn } from '../../ui/people/SignIn';
import { signedIn, type Query } from '../signed-in';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Sign in · Auxesis' };

export default async function SignInPage({ searchParams }: { readonly searchParams: Promise<Query> }) {
  const { to } = await searchParams;
  // Only to a page of this app: a path that begins with two strokes would be another host.
  const target = typeof to === 'string' && /^\/(?![/\\])/.test(to) ? to : '/';
  if (await signedIn()) redirect(target);
  const demoOwner = await openDemoOwner(database());
  const because = target === '/' ? undefined : 'Sign in to see what you have asked for.';
  return <SignIn to={target} demoOwner={demoOwner?.name ?? null} because={because} />;
}
