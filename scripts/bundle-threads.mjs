// Bundles the server's threads into dist/, where the server looks for them: one keeps sheets at work for readers who get no rules, one for findings.
import { join } from 'node:path';

const THREADS = { painter: 'src/server/painter/painter-thread.ts', findings: 'src/server/findings/findings-thread.ts' };

export async function bundleThreads(root) {
  const { build } = await import('esbuild');
  await build({
    absWorkingDir: root,
    entryPoints: THREADS,
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
