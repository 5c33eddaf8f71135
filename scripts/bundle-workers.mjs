// Bundles what runs beside the framework into dist/: the worker processes (one for reader views, one for findings), the
// process that serves the app, and the engine, which runs in a worker of the browser.
import { rmSync } from 'node:fs';
import { join, relative } from 'node:path';

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

/** Under this folder the files of the engine lie as they are addressed. */
const ENGINE = 'dist/engine';

/** Where the engine is served from in development; once it is built, its name is a hash of its content. */
export const ENGINE_IN_DEVELOPMENT = '/_next/static/engine/engine.js';

/**
 * The options of the bundler for the engine: one file with all that opening a sheet needs, which the browser fetches
 * and compiles at once, and others for what is loaded later.
 */
const engineOf = (root, mode) => ({
  absWorkingDir: root,
  entryPoints: { engine: 'src/engine/worker.ts' },
  outdir: join(root, ENGINE, '_next', 'static', 'engine'),
  entryNames: mode === 'production' ? '[name]-[hash]' : '[name]',
  chunkNames: '[name]-[hash]',
  define: { 'process.env.NODE_ENV': JSON.stringify(mode) },
  bundle: true,
  splitting: true,
  format: 'esm',
  platform: 'browser',
  target: 'es2022',
  minify: mode === 'production',
  metafile: true,
  logLevel: 'silent',
});

/** Bundles the engine. Returns the path that it is served under. */
export async function bundleEngine(root) {
  const { build } = await import('esbuild');
  rmSync(join(root, ENGINE), { recursive: true, force: true });
  const { metafile } = await build(engineOf(root, 'production'));
  const [entry] = Object.entries(metafile.outputs).find(([, { entryPoint }]) => entryPoint === 'src/engine/worker.ts');
  return `/${relative(ENGINE, entry)}`;
}

/** Bundles, and again whenever a source changes. `onRebuilt` is called with what it was: `workers`, `server` or `engine`. */
export async function watchBundles(root, onRebuilt) {
  const { context } = await import('esbuild');
  const all = [...bundlesOf(root), engineOf(root, 'development')];
  const contexts = await Promise.all(all.map((options) => watchBundle(context, options, onRebuilt)));
  return { stop: () => Promise.all(contexts.map((each) => each.dispose())) };
}

async function watchBundle(context, options, onRebuilt) {
  let done;
  const first = new Promise((resolve) => (done = resolve));
  let isBuilt = false;
  const tell = ({ errors }) => {
    if (errors.length)
      console.error(errors.map(({ text, location }) => `${location?.file}:${location?.line}: ${text}`).join('\n'));
    else if (isBuilt) onRebuilt(['server', 'engine'].find((name) => name in options.entryPoints) ?? 'workers');
    isBuilt = true;
    done();
  };
  const plugins = [{ name: 'tell', setup: ({ onEnd }) => onEnd(tell) }];
  const made = await context({ ...options, minify: false, plugins });
  await made.watch();
  await first;
  return made;
}
