// npm run scale [-- --runs 5]: everything that serves many people, on loopback: a primary with two streaming replicas,
// PgBouncer, three processes of the app and nginx, each from Debian's packages and configured as docs/deploying says.
// While people write and read, a process, the keeper of a sheet and the primary are killed (scale/play.mjs).
import { existsSync } from 'node:fs';
import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';
import { installDebianPackage } from './debian-package.mjs';
import { PGBOUNCER } from './pooler.mjs';
import { NGINX } from './proxy.mjs';
import { runOnSources } from './run-on-sources.mjs';
import { main } from './run.mjs';

const root = dirname(dirname(fileURLToPath(import.meta.url)));

await main(async () => {
  if (!existsSync(PGBOUNCER)) installDebianPackage('pgbouncer', 'the pooler of connections');
  if (!existsSync(NGINX)) installDebianPackage('nginx-light', 'the proxy');
  await runOnSources(root, 'scripts/scale/run.mjs');
});
