import { PROTOCOL_VERSION, type FromEngine, type ToEngine } from '../protocol/engine-messages';
import { Engine } from './engine';

const post = (message: FromEngine, transfer: Transferable[] = []) => self.postMessage(message, { transfer });

const engine = new Engine((events, transfer) => post({ v: PROTOCOL_VERSION, events }, transfer));

/** How often the engine gets the time. */
const TICK_MS = 60_000;
setInterval(() => engine.tick(Date.now()), TICK_MS);

self.onmessage = async ({ data: { id, ...request } }: MessageEvent<ToEngine>) => {
  try {
    post({ v: PROTOCOL_VERSION, id, done: await engine.answer(request) });
  } catch (error) {
    post({ v: PROTOCOL_VERSION, id, failed: error instanceof Error ? error.message : String(error) });
  }
};
