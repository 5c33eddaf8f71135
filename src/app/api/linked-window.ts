import Joi from 'joi';
import type { WindowAsked } from '../../protocol/linked-table';

/** The key of a row. */
export const rowKeySchema = Joi.array().items(Joi.string().max(1000)).min(1).max(8);

/** A stretch of a linked table, as programs and pages ask for it. */
export const windowSchema = Joi.object<WindowAsked>({
  after: rowKeySchema,
  from: rowKeySchema,
  before: rowKeySchema,
}).oxor('after', 'from', 'before');
