// npm run dev: the app with hot reload, over a private database with the demo data. Workers, and the server before the
// framework, are rebuilt when their sources change.
import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';
import { watchBundles } from './bundle-workers.mjs';
import { installPackages } from './install-packages.mjs';
import { Cluster, freePort } from './postgres.mjs';
import { runUntilStopped } from './run-until-stopped.mjs';
import { prepareDatabase, serveApp } from './serve-app.mjs';

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const PORT = 4390;
/** A page that every session opens: compiled before somebody asks for it. */
const FIRST_PAGE = '/sheets/station-readings';

await runUntilStopped(async ({ started, isEnding }) => {
  installPackages(root);
  const cluster = new Cluster(root, 'dev');
  await cluster.take();
  const database = await started(cluster).start('auxesis');
  prepareDatabase(root, database, { quiet: false });
  let app;
  // Workers end by themselves when their bundle changes; the server is started again.
  const bundles = await watchBundles(root, (changed) => {
    console.log(`Rebuilt: ${changed}`);
    if (changed === 'server') void app?.stop();
  });
  started(bundles);
  const port = process.env.PORT ? Number(process.env.PORT) : await freePort(PORT);
  while (!isEnding()) {
    app = started(
      serveApp(root, { database, port, stderr: 'inherit', mode: 'development', settings: cluster.linkSettings }),
    );
    await app.ready;
    const page = await fetch(`${app.address}${FIRST_PAGE}`).catch(() => null);
    if (page)
      console.log(
        `\n  Auxesis is ready, with hot reload: ${app.address}${FIRST_PAGE}\n  Ctrl-C ends it; the data stays.\n`,
      );
    await app.over;
  }
});
