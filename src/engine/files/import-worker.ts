import { entryOf } from '../../core/values/entry-of';
import { BadFile } from '../../core/exchange/bad-file';
import { answerQuestion, type Handlers, type Question, type Reply } from '../../protocol/channel';
import type { ImportProgress, ImportQuestions } from '../../protocol/import-messages';
import type { ImportFile } from './import-file';
import { openFile } from './open-file';
import { packLines } from './pack-lines';

const post = (reply: Reply<ImportProgress>) => self.postMessage(reply);

/** Progress is reported at most once in this time. */
const REPORT_MS = 100;
let reportedMs = 0;
const onProgress = (progress: number) => {
  if (Date.now() - reportedMs < REPORT_MS) return;
  reportedMs = Date.now();
  post({ event: { progress } });
};

let file: ImportFile | undefined;

function opened(): ImportFile {
  if (!file) throw new BadFile('no file is open');
  return file;
}

const HANDLERS: Handlers<ImportQuestions> = {
  async open(asked) {
    file = await openFile(asked.file, onProgress);
    return file.preview();
  },
  async change({ change }) {
    await opened().change(change, onProgress);
    return opened().preview();
  },
  pack: ({ name }) => packLines(opened().lines(name, onProgress)),
};

function words(error: unknown): string {
  if (error instanceof BadFile) return error.told;
  console.error(error);
  return 'this file cannot be read';
}

self.onmessage = ({ data }: MessageEvent<Question<ImportQuestions> & { readonly id: number }>) =>
  // The name pairs each question with its handler.
  void answerQuestion(data, entryOf<(asked: unknown) => unknown>(HANDLERS, data.kind), { post, words });
