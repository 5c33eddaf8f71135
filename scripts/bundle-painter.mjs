// Bundles the thread that keeps sheets at work for readers who get no rules into dist/painter.cjs, where the server looks for it.
import { join } from 'node:path';

export async function bundlePainter(root) {
  const { build } = await import('esbuild');
  await build({
    absWorkingDir: root,
    entryPoints: ['src/server/painter/painter-thread.ts'],
    outfile: join(root, 'dist', 'painter.cjs'),
    bundle: true,
    minify: true,
    platform: 'node',
    format: 'cjs',
    target: 'node20',
    logLevel: 'silent',
  });
}
