import type { JsonAnswer } from '../../engine/link/send-json';

/**
 * Sends an archive, telling how much of it is there, until it is a sheet or `signal` ends it: then nothing of it is
 * kept. By XMLHttpRequest, since fetch does not tell how far a body has gone.
 */
export function sendArchive(
  packed: Blob,
  { progress, signal }: { readonly progress: (share: number) => void; readonly signal: AbortSignal },
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
          ? { refused: answer?.refused ?? 'Something went wrong on the server. Try again in a moment.' }
          : { answer: { id: answer.id } },
      );
    };
    request.onerror = () => resolve({ refused: 'The server cannot be reached. Try again in a moment.' });
    request.onabort = () => resolve({ refused: '' });
    signal.addEventListener('abort', () => request.abort());
    request.send(packed);
  });
}
