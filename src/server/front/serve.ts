import { createServer } from 'node:http';
import next from 'next';
import { settings as readSettings } from '../settings';
import { frontDoor } from './front-door';

// The process of the app: an HTTP server of Node with the front door before the framework. The framework's own middleware would read every body into
// memory first, and would not see what is refused before it.

/** How long the headers of a request, and all of a request, may take to arrive. */
const HEADERS_MS = 15_000;
const REQUEST_MS = 300_000;
/** How long open requests may go on once the server is asked to stop. */
const GRACE_MS = 3000;

async function serve(): Promise<void> {
  const settings = readSettings();
  const app = next({ dev: false, hostname: settings.listen, port: settings.port });
  await app.prepare();
  const door = frontDoor(settings, app.getRequestHandler());
  const server = createServer(
    { headersTimeout: HEADERS_MS, requestTimeout: REQUEST_MS, keepAliveTimeout: 5000, maxHeaderSize: 16_384 },
    (request, response) => {
      door(request, response).catch((error: unknown) => {
        console.error(error);
        if (!response.headersSent) response.statusCode = 500;
        response.end();
      });
    },
  );
  server.maxConnections = 5000;
  server.listen(settings.port, settings.listen);
  let isStopping = false;
  const stop = (): void => {
    if (isStopping) return;
    isStopping = true;
    for (const close of stopping()) close();
    server.close(() => process.exit(0));
    server.closeIdleConnections();
    setTimeout(() => process.exit(0), GRACE_MS).unref();
  };
  for (const signal of ['SIGTERM', 'SIGINT'] as const) process.on(signal, stop);
}

/** What wants to be told before the server stops, such as streams, which ask their readers to connect again. Set by the app's own modules. */
const stopping = (): ReadonlySet<() => void> => (globalThis as { auxesisStopping?: Set<() => void> }).auxesisStopping ?? new Set();

serve().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
