import Joi from 'joi';
import { itemAt } from '../../core/values/item-at';
import { idSchema } from '../../protocol/content-id';
import { Refusal } from '../../server/refusal';

/** The place of a change in a sheet's log. */
export const sequence = Joi.number().integer().min(0).max(Number.MAX_SAFE_INTEGER);

/** The id of a field or a row, as addresses name it. */
export const contentId = idSchema;

/** The key of a page while it has a sheet open. */
export const pageKey = Joi.string()
  .pattern(/^[\w-]+$/)
  .min(8)
  .max(40);

/**
 * The query of an address, checked; with `no-more`, unknown parameters are refused. Throws a Refusal in words for the
 * caller.
 */
export function readQuery<T>(
  query: URLSearchParams,
  schema: Joi.ObjectSchema<T>,
  rest: 'more' | 'no-more' = 'more',
): T {
  const given: Record<string, string | string[]> = {};
  for (const name of query.keys()) {
    const values = query.getAll(name);
    given[name] = values.length === 1 ? itemAt(values, 0) : values;
  }
  const { error, value } = schema.validate(given, {
    stripUnknown: rest === 'more',
    errors: { wrap: { label: false } },
  });
  if (error) throw new Refusal('bad-request', itemAt(error.details, 0).message);
  return value as T;
}
