import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { bundleWorkers } from '../../scripts/bundle-workers.mjs';
import { Cluster, POSTGRES_FOLDER } from '../../scripts/postgres.mjs';

/**
 * What tests of the server need and `npm test` gives: bundles of the workers, and a database server. Without it, as in
 * a plain `vitest run`, they are made.
 */
export default async function prepareServerTests(): Promise<(() => void) | undefined> {
  const root = join(import.meta.dirname, '../..');
  if (!existsSync(join(root, 'dist/painter.cjs'))) await bundleWorkers(root);
  if (process.env.DATABASE_URL || !existsSync(POSTGRES_FOLDER)) return undefined;
  const cluster = new Cluster(root, `vitest-${process.pid}`);
  await cluster.start('auxesis');
  process.env.DATABASE_URL = cluster.adminUrl;
  return () => cluster.remove();
}
