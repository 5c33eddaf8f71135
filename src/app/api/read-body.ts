import type Joi from 'joi';
import { Refusal } from '../../server/refusal';

/** Longest request body, in UTF-16 code units. */
const LONGEST = 20_000_000;

/** The JSON body of a request, checked. Other content types are refused, so that no other site's form can post here. */
export async function readBody<T>(request: Request, schema: Joi.Schema<T>): Promise<T> {
  if (!request.headers.get('content-type')?.startsWith('application/json'))
    throw new Refusal('bad-request', 'The request must be JSON (content-type application/json)');
  const text = await request.text();
  if (text.length > LONGEST) throw new Refusal('bad-request', `The request is too long: ${text.length} characters, at most ${LONGEST} are taken`);
  const { error, value } = schema.validate(parse(text), { convert: false, errors: { wrap: { label: false } } });
  if (error) throw new Refusal('bad-request', error.details[0]!.message);
  return value as T;
}

function parse(text: string): unknown {
  try {
    return JSON.parse(text, (_, value: unknown) => {
      if (typeof value === 'string' && !isStorable(value))
        throw new Refusal('bad-request', 'Text with a NUL or half a character in it cannot be kept');
      return value;
    });
  } catch (error) {
    throw error instanceof Refusal ? error : new Refusal('bad-request', 'The request is not JSON');
  }
}

/** True for text that the database can keep: well-formed, without NUL. */
const isStorable = (text: string): boolean => !text.includes('\0') && text.isWellFormed();
