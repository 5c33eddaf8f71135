import { readMessage } from '../../protocol/parse-message';

/** The result of a request: its answer, or the refusal in words. */
export type JsonAnswer<T> = { readonly answer: T } | { readonly refused: string };

interface RequestOptions {
  readonly method?: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  readonly body?: unknown;
}

/** Sends a request to the server, in JSON both ways. Never throws: an unreachable server gives a message too. */
export async function sendJson<T = unknown>(
  path: string,
  { method = 'POST', body }: RequestOptions = {},
): Promise<JsonAnswer<T>> {
  try {
    const response = await fetch(path, {
      method,
      ...(method === 'GET' ? {} : { headers: { 'content-type': 'application/json' } }),
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    const answer =
      response.status === 204 ? null : await readMessage<(T & { readonly refused?: string }) | null>(response);
    return response.ok ? { answer: answer as T } : { refused: answer?.refused ?? FAILED };
  } catch {
    return { refused: 'The server cannot be reached. Try again in a moment.' };
  }
}

const FAILED = 'Something went wrong on the server. Try again in a moment.';
