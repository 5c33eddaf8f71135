import type Joi from 'joi';
import { lazySchema } from '../lazy-schema';
import { ICON_SETS } from './icon-sets';
import { SIDES, type Look } from './look';

export const hexSchema = lazySchema((joi) => joi.string().pattern(/^#[0-9a-fA-F]{6}$/), 'a colour such as #ffe3a3');

const has = (joi: Joi.Root, key: string) => joi.object({ [key]: joi.exist() }).unknown();

const fill = lazySchema((joi) =>
  joi.alternatives().conditional(joi.string(), {
    then: hexSchema(joi),
    otherwise: joi
      .alternatives()
      .conditional(has(joi, 'pattern'), {
        then: joi.object({
          pattern: joi.valid('dots', 'lines', 'cross', 'diagonal').required(),
          color: hexSchema(joi).required(),
          on: hexSchema(joi),
        }),
      })
      .conditional(has(joi, 'from'), {
        then: joi.object({ from: hexSchema(joi).required(), to: hexSchema(joi).required(), angle: joi.number() }),
        otherwise: joi.object({ color: hexSchema(joi).required(), opacity: joi.number().min(0).max(1).required() }),
      }),
  }),
);

export const borderSideSchema = lazySchema((joi) =>
  joi.object({
    style: joi.valid('solid', 'dashed', 'dotted', 'double').required(),
    width: joi.number().integer().min(1).max(4).required(),
    color: hexSchema(joi).required(),
  }),
);

const share = lazySchema<number>((joi) => joi.number().min(0).max(1));

const icon = lazySchema((joi) =>
  joi.object({
    set: joi.valid(...Object.keys(ICON_SETS)).required(),
    index: joi.number().integer().min(0).max(4).required(),
  }),
);

const bar = lazySchema((joi) =>
  joi.object({
    start: share(joi).required(),
    end: share(joi).required(),
    axis: share(joi).allow(null).required(),
    color: hexSchema(joi).required(),
    style: joi.valid('solid', 'gradient').required(),
  }),
);

/** A look as rule files and changes give it. Whether a saved look exists is checked where the saved looks are known. */
export const lookSchema = lazySchema<Look>((joi) =>
  joi.object({
    look: joi.string(),
    fill: fill(joi),
    text: hexSchema(joi),
    bold: joi.boolean(),
    italic: joi.boolean(),
    underline: joi.boolean(),
    strike: joi.boolean(),
    border: joi.object(Object.fromEntries([...SIDES, 'around'].map((side) => [side, borderSideSchema(joi)]))),
    number: joi.string().max(64),
    icon: icon(joi),
    bar: bar(joi),
    hideValue: joi.boolean(),
  }),
);
