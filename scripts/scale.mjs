// npm run scale [-- --runs 5]: everything that serves many people, on loopback: a primary with two streaming replicas,
// PgBouncer, three processes of the app and nginx, each from Debian's packages and configured as docs/deploying says.
// While people write and read, a process, the keeper of a sheet and the primary are killed (scale/play.mjs).
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';
import { buildApp } from './build-app.mjs';
import { installDebianPackage } from './debian-package.mjs';
import { installPackages } from './install-packages.mjs';
import { PGBOUNCER } from './pooler.mjs';
import { NGINX } from './proxy.mjs';
import { main } from './run.mjs';

const root = dirname(dirname(fileURLToPath(import.meta.url)));

await main(async () => {
  installPackages(root);
  if (!existsSync(PGBOUNCER)) installDebianPackage('pgbouncer', 'the pooler of connections');
  if (!existsSync(NGINX)) installDebianPackage('nginx-light', 'the proxy');
  await buildApp(root);
  const { status } = spawnSync(
    process.execPath,
    ['--import', 'tsx', 'scripts/scale/run.mjs', ...process.argv.slice(2)],
    { cwd: root, stdio: 'inherit' },
  );
  process.exitCode = status ?? 1;
});
