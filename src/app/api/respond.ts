import { metrics } from '../../server/metrics';
import { isUnavailable } from '../../server/unavailable';
import { Refusal } from '../../server/refusal';
import { log } from '../../server/log';
import { refusalText } from '../../texts/refusal-text';

const STATUS: Record<Refusal['code'], number> = {
  'bad-request': 400,
  'sign-in': 401,
  'not-allowed': 403,
  locked: 403,
  'no-sheet': 404,
  'row-gone': 409,
  'field-gone': 409,
  'row-exists': 409,
  'too-long': 413,
  'too-often': 429,
  'too-busy': 503,
  'too-costly': 503,
};

const UNAVAILABLE = refusalText('serverCannotKeepAnything');

/**
 * Runs a handler. A refusal becomes its status and words; any other error is logged, and the answer says only that
 * something failed.
 */
export async function respond<A>(handle: () => Promise<A>): Promise<A | Response> {
  try {
    return await handle();
  } catch (error) {
    if (error instanceof Refusal) metrics().refusals.inc({ code: error.code });
    if (error instanceof Refusal)
      return Response.json(
        { refused: error.message },
        { status: STATUS[error.code], ...(error.code === 'too-busy' ? { headers: { 'retry-after': '1' } } : {}) },
      );
    log().error({ err: error }, 'a request failed');
    if (isUnavailable(error))
      return Response.json({ refused: UNAVAILABLE }, { status: 503, headers: { 'retry-after': '5' } });
    return Response.json(
      {
        refused: refusalText('somethingWentWrongServer'),
      },
      { status: 500 },
    );
  }
}
