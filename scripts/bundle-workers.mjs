// Bundles the server's workers into dist/, where the server looks for them: one keeps sheets at work for readers who get no rules, one for findings.
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
}
