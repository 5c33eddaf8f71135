import { createServer } from 'node:http';
import next from 'next';
import sirv from 'sirv';
import { stoppingStreams } from '../live/open-streams';
import { log } from '../log';
import { settings as readSettings } from '../settings';
import { frontDoor, type Handler } from './front-door';
import { withQuickRoutes } from './quick-routes';

// The process of the app: an HTTP server of Node with the front door before the framework. The framework's own
// middleware would read every body into memory first, and would not see what is refused before it.

/** How long the headers of a request, and all of a request, may take to arrive. */
const HEADERS_MS = 15_000;
const REQUEST_MS = 300_000;
/** How long a connection is kept for the next request: longer than proxies and clients reuse one (60 s, nginx). */
const IDLE_MS = 65_000;
/** How long open requests may go on once the server is asked to stop. */
const GRACE_MS = 3000;
/** How long browsers may keep what never changes under its name. */
const YEAR_S = 31_536_000;

/** True under `npm run dev`: pages are compiled from the sources and reload by themselves. */
const isDevelopment = process.env.NODE_ENV === 'development';

async function serve(): Promise<void> {
  const settings = readSettings();
  const app = next({ dev: isDevelopment, hostname: settings.listen, port: settings.port });
  await app.prepare();
  const handle = app.getRequestHandler();
  const door = frontDoor(settings, withQuickRoutes(withAssets(handle)));
  const server = createServer(
    { headersTimeout: HEADERS_MS, requestTimeout: REQUEST_MS, keepAliveTimeout: IDLE_MS, maxHeaderSize: 16_384 },
    (request, response) => {
      door(request, response).catch((error: unknown) => {
        log().error({ err: error }, 'a request failed');
        if (!response.headersSent) response.statusCode = 500;
        response.end();
      });
    },
  );
  // The framework notifies pages of changed sources over a WebSocket.
  if (isDevelopment) server.on('upgrade', app.getUpgradeHandler());
  server.maxConnections = 5000;
  server.listen(settings.port, settings.listen);
  let isStopping = false;
  const stop = (): void => {
    if (isStopping) return;
    isStopping = true;
    for (const close of stoppingStreams()) close();
    server.close(() => process.exit(0));
    server.closeIdleConnections();
    setTimeout(() => process.exit(0), GRACE_MS).unref();
  };
  for (const signal of ['SIGTERM', 'SIGINT'] as const) process.on(signal, stop);
  process.on('uncaughtException', (error) => {
    if (isBrokenOff(error)) return log().info({ err: error }, 'a connection broke off');
    // Its state is unknown now: the service manager starts another.
    log().fatal({ err: error }, 'a failure that nobody waited for');
    process.exit(1);
  });
  process.on('unhandledRejection', (error) => log().error({ err: error }, 'a failure that nobody waited for'));
}

/**
 * Serves the built scripts and styles, which are compressed already, before asking the app. Their names are hashes. In
 * development only the engine is built, and each request looks for it again.
 */
function withAssets(handle: Handler): Handler {
  const assets = isDevelopment
    ? sirv('dist/engine', { dev: true })
    : sirv('dist/assets', { brotli: true, gzip: true, immutable: true, maxAge: YEAR_S });
  return (request, response) =>
    new Promise((resolve, reject) => {
      response.once('close', resolve);
      assets(request, response, () => void handle(request, response).then(resolve, reject));
    });
}

/** True for what happens when a reader or sender goes away in the middle, wherever along the way it is noticed. */
const isBrokenOff = (error: NodeJS.ErrnoException): boolean =>
  error.name === 'AbortError' || error.name === 'ResponseAborted' || BROKEN_OFF.has(error.code ?? '');

const BROKEN_OFF: ReadonlySet<string> = new Set([
  'ECONNRESET',
  'EPIPE',
  'ERR_STREAM_PREMATURE_CLOSE',
  'ERR_STREAM_DESTROYED',
  'ABORT_ERR',
]);

serve().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
