import Joi from 'joi';
import { SHORTEST_PASSWORD } from '../../server/people/password';

/** Addresses as people write them: one @ with something on both sides. */
export const email = Joi.string()
  .trim()
  .max(254)
  .pattern(/^[^\s@]+@[^\s@]+$/)
  .messages({
    'string.pattern.base': 'Write an e-mail address, such as ada@example.org.',
    'string.empty': 'Write an e-mail address.',
  });

export const personName = Joi.string()
  .trim()
  .min(1)
  .max(60)
  .messages({ 'string.empty': 'Write a name for others to see.' });

/** A new password. */
export const newPassword = Joi.string()
  .min(SHORTEST_PASSWORD)
  .max(200)
  .messages({
    'string.min': `A password has at least ${SHORTEST_PASSWORD} characters.`,
    'string.empty': `A password has at least ${SHORTEST_PASSWORD} characters.`,
  });

/** A password that is only compared. */
export const givenPassword = Joi.string().allow('').max(200);
