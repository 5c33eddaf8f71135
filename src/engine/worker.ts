import { answerQuestion, type Reply } from '../protocol/channel';
import type { Event, Request } from '../protocol/engine-messages';
import { Engine } from './engine';

const post = (reply: Reply<readonly Event[]>, transfer: Transferable[] = []) => self.postMessage(reply, { transfer });

const engine = new Engine((event, transfer) => post({ event }, transfer));

/** How often the engine gets the time. */
const TICK_MS = 60_000;
setInterval(() => engine.tick(Date.now()), TICK_MS);

self.onmessage = ({ data }: MessageEvent<Request & { readonly id: number }>) =>
  void answerQuestion(data, (request) => engine.answer(request as Request), { post });
