import type { Texts } from '../../texts/texts';
import type { JsonAnswer } from '../../engine/link/send-json';

/**
 * Sends an archive, telling how much of it is there, until it is a sheet or `signal` ends it: then nothing of it is
 * kept. By XMLHttpRequest, since fetch does not tell how far a body has gone.
 */
export function sendArchive(
  packed: Blob,
  {
    progress,
    signal,
    t,
  }: { readonly progress: (share: number) => void; readonly signal: AbortSignal; readonly t: Texts<'importing'> },
): Promise<JsonAnswer<{ id: string }>> {
  return new Promise((resolve) => {
    const request = new XMLHttpRequest();
    request.open('POST', '/api/sheets/import');
    request.setRequestHeader('content-type', 'application/gzip');
    request.responseType = 'json';
    request.upload.onprogress = ({ loaded, total }) => progress(loaded / total);
    request.onload = () => {
      const answer = request.response as { id?: string; refused?: string } | null;
      resolve(
        answer?.id === undefined
          ? { refused: answer?.refused ?? t('somethingWentWrongServer') }
          : { answer: { id: answer.id } },
      );
    };
    request.onerror = () => resolve({ refused: t('serverCannotReachedTry') });
    request.onabort = () => resolve({ refused: '' });
    signal.addEventListener('abort', () => request.abort());
    request.send(packed);
  });
}
