import { existsSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { run, Trouble } from './run.mjs';

/** Makes sure that node_modules is what package-lock.json asks for. */
export function installPackages(root) {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19))
    throw new Trouble(`Node ${process.versions.node} is too old; Node 20.19 or later is needed`);
  const installed = join(root, 'node_modules', '.package-lock.json');
  const lock = join(root, 'package-lock.json');
  if (existsSync(installed) && (statSync(installed).mtimeMs >= statSync(lock).mtimeMs || isSame(installed, lock)))
    return;
  console.log('Installing packages (npm ci)...');
  run('npm', ['ci', '--no-audit', '--no-fund'], { cwd: root });
}

/** A fresh checkout makes the lock file newer than what is installed, though nothing in it may have changed. */
function isSame(installed, lock) {
  const versions = (file) => JSON.parse(readFileSync(file, 'utf8')).packages;
  const have = versions(installed);
  return Object.entries(versions(lock)).every(
    ([path, { version, optional }]) => path === '' || optional || have[path]?.version === version,
  );
}
