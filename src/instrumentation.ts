/** Called once by the framework when a process of the app starts. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { findingsKeeper } = await import('./server/findings/keeper');
  const { log } = await import('./server/log');
  const { settings } = await import('./server/settings');
  // Wrong settings end the start, and are all reported at once.
  settings();
  const { startDigests } = await import('./server/findings/digests');
  const { startShortening } = await import('./server/history/keep-logs-short');
  // The app answers while it catches up. Where the database is not there yet, it is tried again.
  const begin = (): void =>
    void findingsKeeper()
      .start()
      .catch((error: unknown) => {
        log().error({ err: error }, 'findings could not be started');
        setTimeout(begin, RETRY_MS).unref();
      });
  begin();
  startDigests();
  startShortening();
}

const RETRY_MS = 5000;
