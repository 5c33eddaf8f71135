// Bundles the command line into dist/auxesis.cjs, so that it starts without compiling. Run by `npm ci`, which also runs
// it once to fill V8's cache, and by bin/auxesis when a source is newer than the bundle.
import { spawnSync } from 'node:child_process';
import { mkdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const dist = join(root, 'dist');

export async function bundleCommandLine() {
  const { build } = await import('esbuild');
  mkdirSync(dist, { recursive: true });
  const fresh = join(dist, `auxesis.${process.pid}.cjs`);
  const { metafile } = await build({
    absWorkingDir: root,
    entryPoints: ['src/cli/main.ts'],
    outfile: fresh,
    bundle: true,
    minify: true,
    platform: 'node',
    format: 'cjs',
    target: 'node20',
    metafile: true,
    logLevel: 'silent',
  });
  const own = Object.keys(metafile.inputs).filter((file) => !file.startsWith('node_modules/'));
  rmSync(join(dist, 'auxesis.cache'), { force: true });
  writeFileSync(join(dist, 'auxesis.sources.json'), JSON.stringify(own));
  renameSync(fresh, join(dist, 'auxesis.cjs'));
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  await bundleCommandLine();
  const examples = join(root, 'docs', 'examples');
  spawnSync(
    process.execPath,
    [join(root, 'bin', 'auxesis'), 'evaluate', join(examples, 'readings.csv'), join(examples, 'rules.json')],
    {
      stdio: 'ignore',
    },
  );
}
