import { fork, type ChildProcess } from 'node:child_process';
import { unwatchFile, watchFile } from 'node:fs';
import { settings } from '../settings';

/**
 * Starts a worker process, which ends where it needs more memory than this, in megabytes. A process and not a thread,
 * as some faults of the engine end a process with all its threads. It gets nothing of the server's environment but what
 * its clock and its texts depend on: no address of the database, no secret.
 */
export function beginWorker(script: string, memoryMb = settings().workerMemoryMb): ChildProcess {
  const { PATH, TZ, LANG } = process.env;
  const child = fork(script, [], {
    serialization: 'advanced',
    execArgv: [`--max-old-space-size=${memoryMb}`],
    env: { PATH, TZ, LANG, NODE_ENV: process.env.NODE_ENV },
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
  if (process.env.NODE_ENV === 'development') endOnceRebuilt(child, script);
  return child;
}

/** In development a worker whose bundle has changed ends: the next request starts one from the new bundle. */
function endOnceRebuilt(child: ChildProcess, script: string): void {
  const end = (): void => void child.kill();
  watchFile(script, { interval: 300, persistent: false }, end);
  child.once('exit', () => unwatchFile(script, end));
}
