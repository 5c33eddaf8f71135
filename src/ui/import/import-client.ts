import type { FilePreview, FromImport, ImportRequest, ReadingChange, ToImport } from '../../protocol/import-messages';

export type Previewed = { readonly preview: FilePreview } | { readonly refused: string };
export type Packed = { readonly packed: Blob } | { readonly refused: string };

/** The page's end of the worker that reads files. */
export class ImportClient {
  private readonly worker = new Worker(new URL('../../engine/files/import-worker.ts', import.meta.url), {
    type: 'module',
  });
  private readonly waiting = new Map<number, (answer: Previewed | Packed) => void>();
  private lastId = 0;

  constructor(hearProgress: (share: number) => void) {
    this.worker.onmessage = ({ data }: MessageEvent<FromImport>) => {
      if ('progress' in data) return hearProgress(data.progress);
      this.waiting.get(data.id)?.(data);
      this.waiting.delete(data.id);
    };
    this.worker.onerror = () => {
      for (const answer of this.waiting.values())
        answer({ refused: 'this file cannot be read: it may take more memory than there is' });
      this.waiting.clear();
    };
  }

  open(file: File): Promise<Previewed> {
    return this.ask({ kind: 'open', file });
  }

  change(change: ReadingChange): Promise<Previewed> {
    return this.ask({ kind: 'change', change });
  }

  pack(name: string): Promise<Packed> {
    return this.ask({ kind: 'pack', name });
  }

  private ask<A extends Previewed | Packed>(request: ImportRequest): Promise<A> {
    const id = ++this.lastId;
    const message: ToImport = { id, ...request };
    return new Promise((resolve) => {
      this.waiting.set(id, resolve as (answer: Previewed | Packed) => void);
      this.worker.postMessage(message);
    });
  }

  /** Stops whatever it does. */
  close(): void {
    this.worker.terminate();
  }
}
