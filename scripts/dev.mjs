// npm run dev: serves the app from its sources. Pages follow what is saved; the workers and the server are built and started again.
// The database is one of its own, with the demo in it.
import { rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { bundlesOf } from './bundle-workers.mjs';
import { installPackages } from './install-packages.mjs';
import { Cluster, freePort } from './postgres.mjs';
import { main, Trouble } from './run.mjs';
import { prepareDatabase, serveApp } from './serve-app.mjs';

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const PORT = 4390;

/** Builds a bundle now and whenever its sources change; calls `changed` from the second time on, and says what cannot be built. */
async function follow(options, changed) {
  const { context } = await import('esbuild');
  let builds = 0;
  const told = {
    name: 'told',
    setup: (build) =>
      build.onEnd(({ errors }) => {
        for (const { text, location } of errors) console.error(`${location?.file}:${location?.line}: ${text}`);
        if (errors.length === 0 && builds++ > 0) changed();
      }),
  };
  const following = await context({ ...options, minify: false, sourcemap: 'inline', plugins: [told] });
  await following.rebuild().catch(() => {
    throw new Trouble('The workers or the server cannot be built; see above why.');
  });
  await following.watch();
  return following;
}

await main(async () => {
  installPackages(root);
  const cluster = new Cluster(root, 'dev');
  await cluster.take();
  let app;
  let isEnding = false;
  const following = [];
  const end = async (code) => {
    if (isEnding) return;
    isEnding = true;
    await Promise.all(following.map((one) => one.dispose()));
    await app?.stop();
    cluster.stop();
    process.exit(code);
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void end(0));
  try {
    const database = await cluster.start('auxesis');
    prepareDatabase(root, database);
    const port = process.env.PORT ? Number(process.env.PORT) : await freePort(PORT);
    const { workers, server } = bundlesOf(root);
    // A worker watches its own file, see server/workers/begin-worker.ts.
    following.push(await follow(workers, () => console.log('The workers are new.')));
    following.push(await follow(server, () => void app?.stop()));
    // What a build of another kind has left.
    rmSync(join(root, '.next', 'built-from'), { force: true });
    for (let isFirst = true; !isEnding; isFirst = false) {
      app = serveApp(root, { database, port, stderr: 'inherit', mode: 'development' });
      await app.ready;
      console.log(
        isFirst
          ? `\n  Auxesis in development: ${app.address}\n  Demo sheet:             ${app.address}/sheets/station-readings\n`
          : 'The server is new.',
      );
      await app.over;
    }
  } catch (error) {
    if (isEnding) return;
    console.error(error instanceof Trouble ? `\n${error.message}` : error);
    await end(1);
  }
});
