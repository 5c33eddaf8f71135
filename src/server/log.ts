import { AsyncLocalStorage } from 'node:async_hooks';
import pino, { type Logger } from 'pino';
import { codeOf } from '../core/values/error-message';
import { processWide } from './process-wide';
import { itemAt } from '../core/values/item-at';
import { settings } from './settings';

/** The id of the request that is being answered, for whatever is logged meanwhile. */
export const requestIds: AsyncLocalStorage<string> = processWide('request-ids', () => new AsyncLocalStorage());

/**
 * The process's log: lines of JSON on standard error, each with the id of the request it belongs to. Values of cells,
 * addresses of links, tokens and bodies are never logged; of errors of the database only their code and message, not
 * the values of the statement.
 */
export function log(): Logger {
  return processWide('log', () =>
    pino(
      {
        level: settings().logLevel,
        base: undefined,
        timestamp: pino.stdTimeFunctions.isoTime,
        mixin: () => {
          const request = requestIds.getStore();
          return request === undefined ? {} : { request };
        },
        serializers: { err: errorWords },
      },
      pino.destination({ fd: 2, sync: true }),
    ),
  );
}

function errorWords(error: unknown): object {
  if (!(error instanceof Error)) return { message: String(error) };
  const { name, message, stack } = error;
  const code = codeOf(error);
  return { name, message, ...(code === undefined ? {} : { code }), stack };
}

/** A path as it may be logged: without its query, and without the secret of a link. */
export const loggedPath = (url: string): string => itemAt(url.split('?', 1), 0).replace(/(\/links\/)[^/]+/, '$1…');
