// Bundles what runs beside the framework into dist/: the workers, of which one keeps sheets at work for readers who get no rules and one for
// findings, and the process that serves the app.
import { join } from 'node:path';

const WORKERS = { painter: 'src/server/painter/painter-worker.ts', findings: 'src/server/findings/findings-worker.ts' };

export async function bundleWorkers(root) {
  const { build } = await import('esbuild');
  await build({
    absWorkingDir: root,
    entryPoints: WORKERS,
    outdir: join(root, 'dist'),
    outExtension: { '.js': '.cjs' },
    bundle: true,
    minify: true,
    platform: 'node',
    format: 'cjs',
    target: 'node20',
    logLevel: 'silent',
  });
  await build({
    absWorkingDir: root,
    entryPoints: { server: 'src/server/front/serve.ts' },
    outdir: join(root, 'dist'),
    outExtension: { '.js': '.mjs' },
    bundle: true,
    packages: 'external',
    platform: 'node',
    format: 'esm',
    target: 'node20',
    logLevel: 'silent',
  });
}
