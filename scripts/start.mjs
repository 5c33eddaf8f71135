// npm start: sets up what is missing, then serves the app until Ctrl-C.
import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';
import { buildApp } from './build-app.mjs';
import { installPackages } from './install-packages.mjs';
import { Cluster, freePort } from './postgres.mjs';
import { runUntilStopped } from './run-until-stopped.mjs';
import { prepareDatabase, serveApp } from './serve-app.mjs';

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const PORT = 4380;
/** Times in a minute that the server may end by itself and is started again. */
const MAX_ENDS = 5;

await runUntilStopped(async ({ started, isEnding }) => {
  installPackages(root);
  const cluster = process.env.DATABASE_URL ? null : new Cluster(root, 'postgres');
  await cluster?.take();
  const database = cluster ? await started(cluster).start('auxesis') : process.env.DATABASE_URL;
  prepareDatabase(root, database, { quiet: false });
  await buildApp(root);
  const port = process.env.PORT ? Number(process.env.PORT) : await freePort(PORT);
  const ends = [];
  // As a service would: a server that cannot go on ends, and another takes its place.
  while (ends.length < MAX_ENDS) {
    const app = started(serveApp(root, { database, port, stderr: 'inherit', settings: cluster?.linkSettings ?? {} }));
    await app.ready;
    if (isEnding()) return;
    if (ends.length === 0)
      console.log(
        `\n  Auxesis is ready: ${app.address}\n  Demo sheet:       ${app.address}/sheets/station-readings\n  Ctrl-C ends it; the data stays.\n`,
      );
    await app.over;
    if (isEnding()) return;
    console.error('The server ended by itself. Starting it again...');
    ends.push(Date.now());
    while (ends[0] < Date.now() - 60_000 && ends.length > 1) ends.shift();
  }
  console.error('It ends again and again; see above why.');
});
