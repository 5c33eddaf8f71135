// Bundles what runs beside the framework into dist/: the workers, of which one keeps sheets at work for readers who get no rules and one for
// findings, and the process that serves the app.
import { join } from 'node:path';

const WORKERS = { painter: 'src/server/painter/painter-worker.ts', findings: 'src/server/findings/findings-worker.ts' };

/** The options of the bundler: for the workers, and for the server. */
function bundlesOf(root) {
  const common = { absWorkingDir: root, outdir: join(root, 'dist'), bundle: true, platform: 'node', target: 'node20', logLevel: 'silent' };
  return [
    { ...common, entryPoints: WORKERS, outExtension: { '.js': '.cjs' }, minify: true, format: 'cjs' },
    {
      ...common,
      entryPoints: { server: 'src/server/front/serve.ts' },
      outExtension: { '.js': '.mjs' },
      packages: 'external',
      format: 'esm',
    },
  ];
}

export async function bundleWorkers(root) {
  const { build } = await import('esbuild');
  await Promise.all(bundlesOf(root).map((options) => build(options)));
}
