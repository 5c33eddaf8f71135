// npm run drill [WORD...]: plays faults against a throw-away instance (see drill/drill.ts); with words, only those
// whose name holds one of them.
import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';
import { runOnSources } from './run-on-sources.mjs';
import { main } from './run.mjs';

const root = dirname(dirname(fileURLToPath(import.meta.url)));

await main(() => runOnSources(root, 'scripts/drill/drill.ts'));
