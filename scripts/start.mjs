// npm start: sets up what is missing, then serves the app until Ctrl-C.
import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';
import { buildApp } from './build-app.mjs';
import { installPackages } from './install-packages.mjs';
import { Cluster, freePort } from './postgres.mjs';
import { main, Trouble } from './run.mjs';
import { prepareDatabase, serveApp } from './serve-app.mjs';

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const PORT = 4380;

await main(async () => {
  installPackages(root);
  const cluster = process.env.DATABASE_URL ? null : new Cluster(root, 'postgres');
  await cluster?.take();
  let app;
  let ending = false;
  const end = async (code) => {
    if (ending) return;
    ending = true;
    await app?.stop();
    cluster?.stop();
    process.exit(code);
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void end(0));
  try {
    const database = process.env.DATABASE_URL ?? (await cluster.start('auxesis'));
    prepareDatabase(root, database, { quiet: false });
    await buildApp(root);
    app = serveApp(root, { database, port: process.env.PORT ? Number(process.env.PORT) : await freePort(PORT), stderr: 'inherit' });
    await app.ready;
    if (ending) return;
    console.log(
      `\n  Auxesis is ready: ${app.address}\n  Demo sheet:       ${app.address}/sheets/station-readings\n  Ctrl-C ends it; the data stays.\n`,
    );
    await app.over;
    if (ending) return;
    console.error('The server ended by itself.');
    await end(1);
  } catch (error) {
    if (ending) return;
    console.error(error instanceof Trouble ? `\n${error.message}` : error);
    await end(1);
  }
});
