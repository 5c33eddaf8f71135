import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { bundleEngine, bundleWorkers } from './bundle-workers.mjs';
import { compressAssets } from './compress-assets.mjs';
import { runBeside, tail, Trouble } from './run.mjs';

/** Builds the app unless what is built came from the same sources. */
export async function buildApp(root) {
  const stamp = join(root, '.next', 'built-from');
  const sources = hashSources(root);
  const isBuilt =
    existsSync(stamp) &&
    ['painter.cjs', 'findings.cjs', 'server.mjs', 'engine', 'assets'].every((name) =>
      existsSync(join(root, 'dist', name)),
    );
  if (isBuilt && readFileSync(stamp, 'utf8') === sources) return;
  console.log('Building the app (next build)...');
  await bundleWorkers(root);
  const engine = await bundleEngine(root);
  const { status, output } = await runBeside('node_modules/.bin/next', ['build'], {
    cwd: root,
    env: { NEXT_TELEMETRY_DISABLED: '1', NEXT_PUBLIC_ENGINE: engine },
  });
  if (status !== 0) throw new Trouble(`The app could not be built:\n${tail(output)}`);
  compressAssets(root);
  writeFileSync(stamp, sources);
}

function hashSources(root) {
  const hash = createHash('sha256');
  const files = readdirSync(join(root, 'src'), { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => join(entry.parentPath, entry.name))
    .filter((file) => !/\.test\.tsx?$/.test(file));
  for (const name of ['package-lock.json', 'next.config.ts', 'postcss.config.cjs', 'tsconfig.json'])
    files.push(join(root, name));
  for (const file of files.sort()) hash.update(file.slice(root.length)).update(readFileSync(file));
  return hash.digest('hex');
}
