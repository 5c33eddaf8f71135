import { fork, type ChildProcess } from 'node:child_process';

/** Memory of a worker, in megabytes: it ends where it needs more, and the server does not. */
const MEMORY_MB = Number(process.env.AUXESIS_WORKER_MEMORY_MB) || 2048;

/**
 * Starts a worker process. A process and not a thread, as some faults of the engine end a process with all its threads. It gets nothing of the
 * server's environment but what its clock and its texts depend on: no address of the database, no secret.
 */
export function beginWorker(script: string, memoryMb = MEMORY_MB): ChildProcess {
  const { PATH, TZ, LANG } = process.env;
  return fork(script, [], {
    serialization: 'advanced',
    execArgv: [`--max-old-space-size=${memoryMb}`],
    env: { PATH, TZ, LANG, NODE_ENV: process.env.NODE_ENV },
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
}
