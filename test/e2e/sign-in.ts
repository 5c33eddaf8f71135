import { request, type FullConfig } from '@playwright/test';
import { OWNER_STATE } from './owner-state';

/** Signs in as the demo's owner, once for all tests. */
export default async function signIn({ projects }: FullConfig): Promise<void> {
  const context = await request.newContext({ baseURL: projects[0]!.use.baseURL! });
  const answer = await context.post('/api/demo', { data: {} });
  if (!answer.ok()) throw new Error(`The demo cannot be signed in to: ${await answer.text()}`);
  await context.storageState({ path: OWNER_STATE });
  await context.dispose();
}
