import Joi from 'joi';
import type { HistoryQuery } from '../../protocol/sheet-history';
import { contentId, sequence } from './read-query';

/** Which changes of a sheet are asked for. */
export const historyQuery = Joi.object<HistoryQuery>({
  before: sequence,
  field: contentId,
  row: contentId,
  rule: contentId,
  by: Joi.string()
    .pattern(/^(person|visitor) [\w-]+$/)
    .max(80),
});
