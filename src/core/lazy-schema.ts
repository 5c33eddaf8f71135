import type Joi from 'joi';

/** A schema, given Joi. What only runs rules does not load Joi, which has 170 kB. */
export type SchemaOf<T> = (joi: Joi.Root) => Joi.AnySchema<T>;

/**
 * A schema that is built when a value is first checked against it: building all takes longer than reading a small rule
 * file. With `expected`, an error of the value itself (not of a part of it) is one sentence: "... must be ...".
 */
export function lazySchema<T>(build: (joi: Joi.Root) => Joi.Schema<T>, expected?: string): SchemaOf<T> {
  let built: Joi.ExtensionBoundSchema | undefined;
  let lazy: Joi.AnySchema<T> | undefined;
  const check = (joi: Joi.Root, value: unknown, helpers: Joi.CustomHelpers<T>): T | Joi.ErrorReport => {
    built ??= build(joi) as unknown as Joi.ExtensionBoundSchema;
    const { value: checked, errors } = built.$_validate(value, helpers.state, helpers.prefs) as unknown as Checked<T>;
    const first = errors?.[0];
    if (!first) return checked;
    const isInside = first.path.length > (helpers.state.path?.length ?? 0);
    return isInside || expected === undefined
      ? first
      : helpers.message({ custom: `{{#label}} must be ${escapeBraces(expected)}` });
  };
  return (joi) => (lazy ??= joi.any<T>().custom((value: unknown, helpers) => check(joi, value, helpers)));
}

interface Checked<T> {
  readonly value: T;
  readonly errors?: readonly (Joi.ErrorReport & { readonly path: readonly (string | number)[] })[];
}

/** Braces are variables in messages. */
const escapeBraces = (text: string): string => text.replace(/[{}]/g, String.raw`\$&`);
