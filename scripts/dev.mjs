// npm run dev: the app with hot reload, over a private database with the demo data. Workers, and the server before the
// framework, are rebuilt when their sources change.
import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';
import { watchBundles } from './bundle-workers.mjs';
import { installPackages } from './install-packages.mjs';
import { Cluster, freePort } from './postgres.mjs';
import { main, Trouble } from './run.mjs';
import { prepareDatabase, serveApp } from './serve-app.mjs';

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const PORT = 4390;
/** A page that every session opens: compiled before somebody asks for it. */
const FIRST_PAGE = '/sheets/station-readings';

await main(async () => {
  installPackages(root);
  const cluster = new Cluster(root, 'dev');
  await cluster.take();
  let app;
  let bundles;
  let ending = false;
  const end = async (code) => {
    if (ending) return;
    ending = true;
    await bundles?.stop();
    await app?.stop();
    cluster.stop();
    process.exit(code);
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void end(0));
  try {
    const database = await cluster.start('auxesis');
    prepareDatabase(root, database, { quiet: false });
    // Workers end by themselves when their bundle changes; the server is started again.
    bundles = await watchBundles(root, (changed) => {
      console.log(`Rebuilt: ${changed}`);
      if (changed === 'server') void app?.stop();
    });
    const port = process.env.PORT ? Number(process.env.PORT) : await freePort(PORT);
    while (!ending) {
      app = serveApp(root, { database, port, stderr: 'inherit', mode: 'development' });
      await app.ready;
      const page = await fetch(`${app.address}${FIRST_PAGE}`).catch(() => null);
      if (page)
        console.log(
          `\n  Auxesis is ready, with hot reload: ${app.address}${FIRST_PAGE}\n  Ctrl-C ends it; the data stays.\n`,
        );
      await app.over;
    }
  } catch (error) {
    if (ending) return;
    console.error(error instanceof Trouble ? `\n${error.message}` : error);
    await end(1);
  }
});
