import { BadFile } from '../../core/exchange/bad-file';
import type { FromImport, ImportRequest, ToImport } from '../../protocol/import-messages';
import type { ImportFile } from './import-file';
import { openFile } from './open-file';
import { packLines } from './pack-lines';

const post = (message: FromImport) => self.postMessage(message);

/** Progress is reported at most once in this time. */
const TELL_MS = 100;
let told = 0;
const progress = (share: number) => {
  if (Date.now() - told < TELL_MS) return;
  told = Date.now();
  post({ progress: share });
};

let opened: ImportFile | undefined;

self.onmessage = async ({ data: { id, ...request } }: MessageEvent<ToImport>) => {
  try {
    post({ id, ...(await answer(request)) });
  } catch (error) {
    if (!(error instanceof BadFile)) console.error(error);
    post({ id, refused: error instanceof BadFile ? error.told : 'this file cannot be read' });
  }
};

async function answer(request: ImportRequest) {
  if (request.kind === 'open') {
    opened = await openFile(request.file, progress);
    return { preview: opened.preview() };
  }
  if (!opened) throw new BadFile('no file is open');
  if (request.kind === 'pack') return { packed: await packLines(opened.lines(request.name, progress)) };
  await opened.change(request.change, progress);
  return { preview: opened.preview() };
}
