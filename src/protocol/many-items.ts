import Joi from 'joi';

/**
 * Items of one list that a schema is asked about, which takes tens of microseconds for each: those that are not of the
 * plain form.
 */
const MAX_CHECKED = 20_000;

/**
 * Whether an item is of the plain form. `isAccepted` says of a part of it whether the schema has accepted an item with
 * the same part before.
 */
type IsPlain = (item: Readonly<Record<string, unknown>>, isAccepted: (part: unknown) => boolean) => boolean;

/** The form of the items of a long list. */
export interface ManyForm {
  /** The schema that every item meets. */
  readonly item: Joi.Schema;
  /** True only for items that meet the schema. */
  readonly isPlain: IsPlain;
  /** The part of an item that is often the same in many, such as its style. */
  readonly repeated?: string;
  /** Why a list is too large to be checked, in words that follow its name; undefined where it is not. */
  readonly tooMuch?: (items: readonly unknown[]) => string | undefined;
}

/**
 * A list of at least one item, in time for hundreds of thousands of them: those of the plain form are known by hand,
 * the others are checked by their schema. More than 20,000 of the others are refused, so that no list holds the server
 * up.
 */
export const manyItems = ({ item, isPlain, repeated, tooMuch }: ManyForm): Joi.ArraySchema =>
  Joi.array()
    .min(1)
    .custom((items: readonly Readonly<Record<string, unknown>>[], helpers) => {
      const reason = tooMuch?.(items);
      if (reason !== undefined) return helpers.message({ custom: `{{#label}} ${reason}` });
      const accepted = new Set<string>();
      const isAccepted = (part: unknown): boolean => part === undefined || accepted.has(JSON.stringify(part));
      let checked = 0;
      for (const [at, one] of items.entries()) {
        if (one !== null && isPlain(one, isAccepted)) continue;
        if (++checked > MAX_CHECKED)
          return helpers.message({
            custom: '{{#label}} has too many items with formatting or a form of their own: send fewer at once',
          });
        const [error] = itemErrors(item, one, { at, items, helpers });
        if (error) return error;
        const part = repeated === undefined ? undefined : one?.[repeated];
        if (part !== undefined) accepted.add(JSON.stringify(part));
      }
      return items;
    });

interface ItemPlace {
  readonly at: number;
  readonly items: readonly unknown[];
  readonly helpers: Joi.CustomHelpers;
}

interface PlacedState {
  readonly path: readonly (string | number)[];
  readonly ancestors: readonly unknown[];
  localize(path: readonly (string | number)[], ancestors: readonly unknown[]): PlacedState;
}

interface PlacedSchema {
  $_validate(
    value: unknown,
    state: PlacedState,
    prefs: Joi.ValidationOptions,
  ): { readonly errors?: readonly Joi.ErrorReport[] | null };
}

/** The problem with one item, with its place in the whole message, as the library reports it for lists. */
function itemErrors(item: Joi.Schema, value: unknown, { at, items, helpers }: ItemPlace): readonly Joi.ErrorReport[] {
  const state = helpers.state as unknown as PlacedState;
  const placed = state.localize([...state.path, at], [items, ...state.ancestors]);
  return (item as unknown as PlacedSchema).$_validate(value, placed, helpers.prefs).errors ?? [];
}
