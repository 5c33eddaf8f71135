// Bundles what runs beside the framework into dist/: the workers, of which one keeps sheets at work for readers who get no rules and one for
// findings, and the process that serves the app.
import { join } from 'node:path';

const WORKERS = { painter: 'src/server/painter/painter-worker.ts', findings: 'src/server/findings/findings-worker.ts' };

/** What the bundler is asked for: the workers, and the server. */
export function bundlesOf(root) {
  const common = { absWorkingDir: root, outdir: join(root, 'dist'), bundle: true, platform: 'node', target: 'node20', logLevel: 'silent' };
  return {
    workers: { ...common, entryPoints: WORKERS, outExtension: { '.js': '.cjs' }, minify: true, format: 'cjs' },
    server: {
      ...common,
      entryPoints: { server: 'src/server/front/serve.ts' },
      outExtension: { '.js': '.mjs' },
      packages: 'external',
      format: 'esm',
    },
  };
}

export async function bundleWorkers(root) {
  const { build } = await import('esbuild');
  await Promise.all(Object.values(bundlesOf(root)).map(build));
}
