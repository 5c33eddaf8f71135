import { spawnSync } from 'node:child_process';
import { buildApp } from './build-app.mjs';
import { installPackages } from './install-packages.mjs';

/** Runs a script that reads the sources, once the app is built, with the arguments of this process. */
export async function runOnSources(root, script) {
  installPackages(root);
  await buildApp(root);
  const { status } = spawnSync(process.execPath, ['--import', 'tsx', script, ...process.argv.slice(2)], {
    cwd: root,
    stdio: 'inherit',
  });
  process.exitCode = status ?? 1;
}
