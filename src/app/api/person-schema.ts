import Joi from 'joi';
import { SHORTEST_PASSWORD } from '../../server/people/password';
import { refusalText } from '../../texts/refusal-text';

/** Addresses as people write them: one @ with something on both sides. */
export const email = Joi.string()
  .trim()
  .max(254)
  .pattern(/^[^\s@]+@[^\s@]+$/)
  .messages({
    'string.pattern.base': refusalText('writeEMailAddress'),
    'string.empty': refusalText('writeAnEMailAddress'),
  });

export const personName = Joi.string()
  .trim()
  .min(1)
  .max(60)
  .messages({ 'string.empty': refusalText('writeNameOthersSee') });

/** A new password. */
export const newPassword = Joi.string()
  .min(SHORTEST_PASSWORD)
  .max(200)
  .messages({
    'string.min': refusalText('passwordHasLeastShortestPassword', { shortestPassword: SHORTEST_PASSWORD }),
    'string.empty': refusalText('passwordHasLeastShortestPassword', { shortestPassword: SHORTEST_PASSWORD }),
  });

/** A password that is only compared. */
export const givenPassword = Joi.string().allow('').max(200);
