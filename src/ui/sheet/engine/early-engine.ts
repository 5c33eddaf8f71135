import equal from 'fast-deep-equal';
import type { Reply } from '../../../protocol/channel';
import type { Event, RequestOf } from '../../../protocol/engine-messages';

/** The engine that a page starts while it is still being read. */
interface EarlyEngine {
  readonly worker: Worker;
  readonly asked: RequestOf<'open'>;
  /** What it has posted so far. */
  readonly heard: readonly Reply<readonly Event[]>[];
}

declare global {
  interface Window {
    earlyEngine?: EarlyEngine | undefined;
  }
}

/** The script of the worker; its name is a hash of it. */
export const ENGINE_SCRIPT = process.env.NEXT_PUBLIC_ENGINE ?? '';

/** The number of the question that it is started with. */
export const EARLY_ID = 0;

/**
 * The text of a script that starts the engine and has it open a sheet, in the theme that the page is painted in: the
 * sheet is there when the scripts of the page are, and both need their time.
 */
export function earlyScript(open: Omit<RequestOf<'open'>, 'theme'>): string {
  // Within a script nothing may look like its end.
  const asked = JSON.stringify(open).replaceAll('<', String.raw`\u003c`);
  // Code, not words for people.
  // oxlint-disable-next-line texts/in-catalogue
  return `{
  const worker = new Worker(${JSON.stringify(ENGINE_SCRIPT)}, { type: 'module' });
  const theme = document.documentElement.dataset.mantineColorScheme === 'dark' ? 'dark' : 'light';
  const asked = { ...${asked}, theme };
  const heard = [];
  worker.onmessage = ({ data }) => heard.push(data);
  worker.postMessage({ ...asked, id: ${EARLY_ID} });
  window.earlyEngine = { worker, asked, heard };
}`;
}

/** Takes over the engine that was started early, once, where it was asked for the same; ends any other. */
export function takeEarlyEngine(open: RequestOf<'open'>): EarlyEngine | undefined {
  const early = typeof window === 'undefined' ? undefined : window.earlyEngine;
  if (!early) return undefined;
  window.earlyEngine = undefined;
  if (equal(early.asked, open)) return early;
  early.worker.terminate();
  return undefined;
}
