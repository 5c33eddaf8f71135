import { Trouble } from './run.mjs';

/**
 * Runs `work` until it returns, fails, or a signal ends it (Ctrl-C among them). Then stops what it has started, the
 * newest first, and exits: with 0 after a signal, else with 1. `work` gets `started`, which notes something with a
 * `stop` and returns it, and `isEnding`.
 */
export async function runUntilStopped(work) {
  const running = [];
  let ending = false;
  const end = async (code) => {
    if (ending) return;
    ending = true;
    for (const each of running.reverse()) await each.stop();
    process.exit(code);
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void end(0));
  const started = (each) => {
    running.push(each);
    return each;
  };
  try {
    await work({ started, isEnding: () => ending });
  } catch (error) {
    if (!ending) console.error(error instanceof Trouble ? `\n${error.message}` : error);
  }
  await end(1);
}
