// npm run soak [-- --minutes 60]: people write, read, come and go for as long, while memory, open files and the database
// are looked at. Prints the curve, and fails where memory goes on growing (soak/run.mjs).
import { spawnSync } from 'node:child_process';
import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';
import { buildApp } from './build-app.mjs';
import { installPackages } from './install-packages.mjs';
import { main } from './run.mjs';

const root = dirname(dirname(fileURLToPath(import.meta.url)));

await main(async () => {
  installPackages(root);
  await buildApp(root);
  const { status } = spawnSync(
    process.execPath,
    ['--import', 'tsx', 'scripts/soak/run.mjs', ...process.argv.slice(2)],
    { cwd: root, stdio: 'inherit' },
  );
  process.exitCode = status ?? 1;
});
