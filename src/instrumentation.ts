/** Called once by the framework when a process of the app starts. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { findingsKeeper } = await import('./server/findings/keeper');
  const { log } = await import('./server/log');
  const { settings } = await import('./server/settings');
  // Wrong settings end the start, and are all told at once.
  settings();
  const { startDigests } = await import('./server/findings/digests');
  // The app answers while it catches up.
  findingsKeeper()
    .start()
    .catch((error: unknown) => log().error({ err: error }, 'findings could not be started'));
  startDigests();
}
