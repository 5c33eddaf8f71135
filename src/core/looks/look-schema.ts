import Joi from 'joi';
import { lazySchema } from '../lazy-schema';
import { ICON_SETS } from './icon-sets';
import { SIDES, type Look } from './look';

export const hexSchema = lazySchema(() => Joi.string().pattern(/^#[0-9a-fA-F]{6}$/), 'a colour such as #ffe3a3');

const has = (key: string) => Joi.object({ [key]: Joi.exist() }).unknown();

const fill = lazySchema(() =>
  Joi.alternatives().conditional(Joi.string(), {
    then: hexSchema,
    otherwise: Joi.alternatives()
      .conditional(has('pattern'), {
        then: Joi.object({
          pattern: Joi.valid('dots', 'lines', 'cross', 'diagonal').required(),
          color: hexSchema.required(),
          on: hexSchema,
        }),
      })
      .conditional(has('from'), {
        then: Joi.object({ from: hexSchema.required(), to: hexSchema.required(), angle: Joi.number() }),
        otherwise: Joi.object({ color: hexSchema.required(), opacity: Joi.number().min(0).max(1).required() }),
      }),
  }),
);

export const borderSideSchema = lazySchema(() =>
  Joi.object({
    style: Joi.valid('solid', 'dashed', 'dotted', 'double').required(),
    width: Joi.number().integer().min(1).max(4).required(),
    color: hexSchema.required(),
  }),
);

const share = lazySchema<number>(() => Joi.number().min(0).max(1));

/** A look as rule files and changes give it. Whether a saved look exists is checked where the saved looks are known. */
export const lookSchema = lazySchema<Look>(() =>
  Joi.object({
    look: Joi.string(),
    fill,
    text: hexSchema,
    bold: Joi.boolean(),
    italic: Joi.boolean(),
    underline: Joi.boolean(),
    strike: Joi.boolean(),
    border: Joi.object(Object.fromEntries([...SIDES, 'around'].map((side) => [side, borderSideSchema]))),
    number: Joi.string().max(64),
    icon: lazySchema(() =>
      Joi.object({
        set: Joi.valid(...Object.keys(ICON_SETS)).required(),
        index: Joi.number().integer().min(0).max(4).required(),
      }),
    ),
    bar: lazySchema(() =>
      Joi.object({
        start: share.required(),
        end: share.required(),
        axis: share.allow(null).required(),
        color: hexSchema.required(),
        style: Joi.valid('solid', 'gradient').required(),
      }),
    ),
    hideValue: Joi.boolean(),
  }),
);
