import { setTimeout as pause } from 'node:timers/promises';
import { ENGINE_IN_DEVELOPMENT } from './bundle-workers.mjs';
import { run, start, Trouble } from './run.mjs';

/** Migrates a database, and seeds the demo once. */
export function prepareDatabase(root, url, { quiet = true } = {}) {
  run(process.execPath, ['--import', 'tsx', 'scripts/prepare-database.ts'], {
    cwd: root,
    env: { DATABASE_URL: url },
    quiet,
  });
}

/**
 * Serves the app on loopback: the built one, or in development mode from its sources. `ready` is fulfilled once it
 * answers; `stop` ends it by its own process group.
 */
export function serveApp(root, { database, port, stderr = 'ignore', mode = 'production', settings = {} }) {
  const env = {
    DATABASE_URL: database,
    PORT: String(port),
    NODE_ENV: mode,
    ...(mode === 'development' ? { NEXT_PUBLIC_ENGINE: ENGINE_IN_DEVELOPMENT } : {}),
    NEXT_TELEMETRY_DISABLED: '1',
    AUXESIS_LOG_LEVEL: process.env.AUXESIS_LOG_LEVEL ?? 'warn',
    ...settings,
    ...(process.env.AUXESIS_LINKED === undefined ? {} : { AUXESIS_LINKED: process.env.AUXESIS_LINKED }),
    ...(process.env.AUXESIS_SEAL_KEY === undefined ? {} : { AUXESIS_SEAL_KEY: process.env.AUXESIS_SEAL_KEY }),
  };
  const server = start(process.execPath, ['dist/server.mjs'], {
    cwd: root,
    env,
    stdio: ['ignore', 'ignore', stderr],
  });
  const isOver = () => server.exitCode !== null || server.signalCode !== null;
  const over = new Promise((resolve) => server.once('exit', resolve));
  const address = `http://127.0.0.1:${port}`;
  return {
    address,
    pid: server.pid,
    over,
    ready: answers(address, isOver),
    stop: () => (isOver() ? Promise.resolve() : endGroup(server, over)),
  };
}

async function answers(address, isOver) {
  for (let tries = 0; tries < 150 && !isOver(); tries++) {
    const answer = await fetch(`${address}/api/ready`).catch(() => null);
    if (answer?.ok) return;
    await pause(200);
  }
  throw new Trouble(`The server does not answer at ${address}. If something else uses the port, set PORT to another.`);
}

/** Asks a process group to end, and ends it after four seconds if it has not. */
async function endGroup(server, over) {
  process.kill(-server.pid, 'SIGTERM');
  const insisting = setTimeout(() => process.kill(-server.pid, 'SIGKILL'), 4000);
  await over;
  clearTimeout(insisting);
}
