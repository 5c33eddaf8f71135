// npm run bench: each figure beside its baseline from the same run. Nothing here is a test.
import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';
import { buildApp } from './build-app.mjs';
import { installPackages } from './install-packages.mjs';
import { Cluster, freePort } from './postgres.mjs';
import { main, run } from './run.mjs';
import { prepareDatabase, serveApp } from './serve-app.mjs';

const root = dirname(dirname(fileURLToPath(import.meta.url)));

await main(async () => {
  installPackages(root);
  for (const part of [
    'limits',
    'formulas',
    'growth',
    'growth-of-rules',
    'edits',
    'large-edits',
    'file-formats',
    'by-example',
  ])
    run(process.execPath, ['--import', 'tsx', `scripts/bench/${part}.ts`], { cwd: root, quiet: false });
  run(process.execPath, ['--expose-gc', '--import', 'tsx', 'scripts/bench/memory.ts'], { cwd: root, quiet: false });
  const cluster = new Cluster(root, `bench-${process.pid}`);
  let app;
  try {
    const database = await cluster.start('auxesis');
    prepareDatabase(root, database);
    const sheet = run(process.execPath, ['--import', 'tsx', 'scripts/bench/large-sheet.ts'], {
      cwd: root,
      env: { DATABASE_URL: database },
    }).trim();
    run(process.execPath, ['--expose-gc', '--import', 'tsx', 'scripts/bench/files.ts'], {
      cwd: root,
      env: { DATABASE_URL: database },
      quiet: false,
    });
    await buildApp(root);
    app = serveApp(root, { database, port: await freePort() });
    await app.ready;
    const { benchBrowser } = await import('./bench/browser.mjs');
    await benchBrowser(app.address, sheet);
    const huge = run(process.execPath, ['--import', 'tsx', 'scripts/bench/huge-sheet.ts'], {
      cwd: root,
      env: { DATABASE_URL: database },
    }).trim();
    const { benchTenMillion } = await import('./bench/ten-million.mjs');
    await benchTenMillion(app.address, huge);
  } finally {
    await app?.stop();
    cluster.remove();
  }
});
