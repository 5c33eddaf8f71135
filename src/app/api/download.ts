import { Readable } from 'node:stream';
import { fileNameOf } from '../../core/exchange/export-formats';

interface Download {
  readonly name: string;
  readonly ending: string;
  readonly type: string;
}

/** A file that is sent as it is made, under the name of its sheet. */
export const download = (pieces: Readable, { name, ending, type }: Download): Response =>
  new Response(Readable.toWeb(pieces) as ReadableStream<Uint8Array>, {
    headers: {
      'content-type': type,
      'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(fileNameOf(name, ending))}`,
      'cache-control': 'no-store',
    },
  });
