// npm run drill [WORD...]: plays faults against a throw-away instance (see drill/drill.ts); with words, only those
// whose name holds one of them.
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
    ['--import', 'tsx', 'scripts/drill/drill.ts', ...process.argv.slice(2)],
    {
      cwd: root,
      stdio: 'inherit',
    },
  );
  process.exitCode = status ?? 1;
});
