import type { Texts } from '../../texts/texts';
import { Asker, type Reply } from '../../protocol/channel';
import type { FilePreview, ImportProgress, ImportQuestions, ReadingChange } from '../../protocol/import-messages';

export type Previewed = { readonly preview: FilePreview } | Refused;
export type Packed = { readonly packed: Blob } | Refused;
/** Why a file cannot be read, in words. */
interface Refused {
  readonly refused: string;
}

const asRefused = (error: Error): Refused => ({ refused: error.message });

/** The page's end of the worker that reads files. Its answers never reject. */
export class ImportClient {
  private readonly worker = new Worker(new URL('../../engine/files/import-worker.ts', import.meta.url), {
    type: 'module',
  });
  private readonly asker: Asker<ImportQuestions, ImportProgress>;

  constructor(onProgress: (share: number) => void, t: Texts<'importing'>) {
    this.asker = new Asker(
      (message) => this.worker.postMessage(message),
      ({ progress }) => onProgress(progress),
    );
    this.worker.onmessage = ({ data }: MessageEvent<Reply<ImportProgress>>) => this.asker.hear(data);
    this.worker.onerror = () => this.asker.failAll(t('fileCannotReadMay'));
  }

  open(file: File): Promise<Previewed> {
    return this.asker.ask({ kind: 'open', file }).then((preview) => ({ preview }), asRefused);
  }

  change(change: ReadingChange): Promise<Previewed> {
    return this.asker.ask({ kind: 'change', change }).then((preview) => ({ preview }), asRefused);
  }

  pack(name: string): Promise<Packed> {
    return this.asker.ask({ kind: 'pack', name }).then((packed) => ({ packed }), asRefused);
  }

  /** Stops whatever it does. */
  close(): void {
    this.worker.terminate();
  }
}
