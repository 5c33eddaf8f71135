// npm start: sets up what is missing, then serves the app until Ctrl-C.
import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';
import { setTimeout as pause } from 'node:timers/promises';
import { buildApp } from './build-app.mjs';
import { installPackages } from './install-packages.mjs';
import { Cluster, freePort } from './postgres.mjs';
import { main, run, start, Trouble } from './run.mjs';

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const PORT = 4380;

await main(async () => {
  installPackages(root);
  const cluster = process.env.DATABASE_URL ? null : new Cluster(root, 'postgres');
  const env = { DATABASE_URL: process.env.DATABASE_URL ?? (await cluster.start('auxesis')), NEXT_TELEMETRY_DISABLED: '1' };
  let server;
  let ending = false;
  const end = (code) => {
    if (ending) return;
    ending = true;
    const finish = () => {
      cluster?.stop();
      process.exit(code);
    };
    if (!server || server.exitCode !== null || server.signalCode !== null) return finish();
    server.once('exit', finish);
    process.kill(-server.pid, 'SIGTERM');
    setTimeout(() => process.kill(-server.pid, 'SIGKILL'), 4000).unref();
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => end(0));
  try {
    run(process.execPath, ['--import', 'tsx', 'scripts/prepare-database.ts'], { cwd: root, env, quiet: false });
    buildApp(root);
    const port = process.env.PORT ? Number(process.env.PORT) : await freePort(PORT);
    server = start(process.execPath, ['node_modules/next/dist/bin/next', 'start', '-H', '127.0.0.1', '-p', String(port)], {
      cwd: root,
      env,
      stdio: ['ignore', 'ignore', 'inherit'],
    });
    server.once('exit', (code) => ending || (console.error(`The server ended (exit ${code}).`), end(1)));
    const address = `http://127.0.0.1:${port}`;
    await ready(address, () => ending);
    if (!ending)
      console.log(`\n  Auxesis is ready: ${address}\n  Demo sheet:       ${address}/sheets/station-readings\n  Ctrl-C ends it; the data stays.\n`);
  } catch (error) {
    console.error(error instanceof Trouble ? `\n${error.message}` : error);
    end(1);
  }
});

async function ready(address, isEnding) {
  for (let tries = 0; tries < 150 && !isEnding(); tries++) {
    const answer = await fetch(`${address}/api/health`).catch(() => null);
    if (answer?.ok) return;
    await pause(200);
  }
  if (!isEnding()) throw new Trouble(`The server does not answer at ${address}. If something else uses the port, set PORT to another.`);
}
