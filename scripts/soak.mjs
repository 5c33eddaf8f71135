// npm run soak [-- --minutes 60]: people write, read, come and go for as long, while memory, open files and the database
// are looked at. Prints the curve, and fails where memory goes on growing (soak/run.mjs).
import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';
import { runOnSources } from './run-on-sources.mjs';
import { main } from './run.mjs';

const root = dirname(dirname(fileURLToPath(import.meta.url)));

await main(() => runOnSources(root, 'scripts/soak/run.mjs'));
