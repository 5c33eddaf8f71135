// Loaded into the server of a soak: on SIGUSR2 it collects garbage, so that what is left can be measured.
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';

setFlagsFromString('--expose-gc');
const collect = runInNewContext('gc');
process.on('SIGUSR2', () => collect());
