// Bundles what runs beside the framework into dist/: the worker processes (one for reader views, one for findings) and
// the process that serves the app.
import { join } from 'node:path';

const WORKERS = { painter: 'src/server/painter/painter-worker.ts', findings: 'src/server/findings/findings-worker.ts' };

/** The options of the bundler: for the workers, and for the server. */
function bundlesOf(root) {
  const common = {
    absWorkingDir: root,
    outdir: join(root, 'dist'),
    bundle: true,
    platform: 'node',
    target: 'node20',
    logLevel: 'silent',
  };
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

/** Bundles, and again whenever a source changes. `onRebuilt` is called with what it was: `workers` or `server`. */
export async function watchBundles(root, onRebuilt) {
  const { context } = await import('esbuild');
  const contexts = await Promise.all(bundlesOf(root).map((options) => watchBundle(context, options, onRebuilt)));
  return { stop: () => Promise.all(contexts.map((each) => each.dispose())) };
}

async function watchBundle(context, options, onRebuilt) {
  let done;
  const first = new Promise((resolve) => (done = resolve));
  let isBuilt = false;
  const tell = ({ errors }) => {
    if (errors.length)
      console.error(errors.map(({ text, location }) => `${location?.file}:${location?.line}: ${text}`).join('\n'));
    else if (isBuilt) onRebuilt('server' in options.entryPoints ? 'server' : 'workers');
    isBuilt = true;
    done();
  };
  const plugins = [{ name: 'tell', setup: ({ onEnd }) => onEnd(tell) }];
  const made = await context({ ...options, minify: false, plugins });
  await made.watch();
  await first;
  return made;
}
