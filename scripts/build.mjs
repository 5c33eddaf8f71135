// npm run build: builds the app, its workers and its server, unless they are built from these sources.
import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';
import { buildApp } from './build-app.mjs';
import { main } from './run.mjs';

await main(() => buildApp(dirname(dirname(fileURLToPath(import.meta.url)))));
