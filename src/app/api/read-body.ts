import { Readable } from 'node:stream';
import type Joi from 'joi';
import { itemAt } from '../../core/values/item-at';
import type { Asked } from '../../server/front/quick-routes';
import { Refusal } from '../../server/refusal';
import { refusalText } from '../../texts/refusal-text';

/**
 * Bytes of a request's body: of a change, of a change by a filler, of most other requests, and of those that are read
 * before the caller is known.
 */
export const LARGE_BODY = 20_000_000;
export const FILLER_BODY = 200_000;
const USUAL_BODY = 1_000_000;
export const SMALL_BODY = 10_000;

/**
 * The JSON body of a request, checked, up to a number of bytes. Other content types are refused, so that no form of
 * another site can post here.
 */
export async function readBody<T>(request: Asked, schema: Joi.Schema<T>, most = USUAL_BODY): Promise<T> {
  if (!request.headers.get('content-type')?.startsWith('application/json'))
    throw new Refusal('bad-request', refusalText('requestMustJSONContent'));
  const text = await readText(request, most);
  const { error, value } = schema.validate(parse(text), { convert: false, errors: { wrap: { label: false } } });
  if (error) throw new Refusal('bad-request', itemAt(error.details, 0).message);
  return value as T;
}

/**
 * The text of a body. One whose declared length is too long is not read at all; one without a length is read up to the
 * limit.
 */
async function readText(request: Asked, most: number): Promise<string> {
  const tooLong = () => new Refusal('too-long', refusalText('requestTooLongMost', { most }));
  if (Number(request.headers.get('content-length') ?? 0) > most) throw tooLong();
  const decoder = new TextDecoder('utf-8', { fatal: true });
  const parts: string[] = [];
  let length = 0;
  try {
    await eachPart(request.body, (part) => {
      length += part.byteLength;
      if (length > most) throw tooLong();
      parts.push(decoder.decode(part, { stream: true }));
    });
    parts.push(decoder.decode());
  } catch (error) {
    if (error instanceof TypeError) throw new Refusal('bad-request', refusalText('requestNotUTF8'));
    throw error;
  }
  return parts.join('');
}

/** Calls with each part of a body, up to its end. What the call throws ends it. */
async function eachPart(body: Asked['body'], take: (part: Uint8Array) => void): Promise<void> {
  if (body instanceof Readable)
    // A third of the time of a loop that waits for each part: most bodies have one.
    return new Promise((resolve, reject) => {
      body.on('data', (part: Uint8Array) => {
        try {
          take(part);
        } catch (error) {
          body.pause();
          reject(error as Error);
        }
      });
      body.once('end', resolve).once('error', reject);
      // Broken off: nobody is there any more who could read why.
      body.once('close', () => reject(Object.assign(new Error('closed'), { code: 'ECONNRESET' })));
    });
  for await (const part of (body ?? []) as AsyncIterable<Uint8Array>) take(part);
}

function parse(text: string): unknown {
  try {
    // NUL and halves of characters cannot stand in valid JSON and UTF-8 but by an escape.
    if (!text.includes('\\u')) return JSON.parse(text);
    return JSON.parse(text, (_, value: unknown) => {
      if (typeof value === 'string' && !isStorable(value))
        throw new Refusal('bad-request', refusalText('textNULOrHalf'));
      return value;
    });
  } catch (error) {
    throw error instanceof Refusal ? error : new Refusal('bad-request', refusalText('requestNotJSON'));
  }
}

/** True for text that the database can keep: well-formed, without NUL. */
const isStorable = (text: string): boolean => !text.includes('\0') && text.isWellFormed();
