import Joi from 'joi';
import type { FindingQuery } from '../../protocol/findings';
import { sequence } from './read-query';

/** Which findings are asked for. */
export const findingQuery = Joi.object<FindingQuery>({
  before: sequence,
  rule: Joi.string().max(100),
  only: Joi.valid('unseen'),
});
