import type { useTranslations } from 'use-intl';
import { keysOf, recordOf } from '../core/values/typed-keys';
import type { english } from './english';

declare module 'use-intl' {
  interface AppConfig {
    Messages: typeof english;
  }
}

/** The language of the texts. */
export const LANGUAGE = 'en';

/** A place on the screen, which has a file of texts. */
export type Place = keyof typeof english;

/** The name of a text of a place that takes no values. */
export type Key<P extends Place> = {
  [K in keyof (typeof english)[P]]: (typeof english)[P][K] extends `${string}{${string}` ? never : K;
}[keyof (typeof english)[P]];

/** Says the texts of a place. */
export type Texts<P extends Place> = ReturnType<typeof useTranslations<P>>;

/** Each entry of a table of names as its text. */
export const eachText = <C extends string, K extends string>(
  names: Readonly<Record<C, K>>,
  say: (name: K) => string,
): Record<C, string> => recordOf(keysOf(names), (choice) => say(names[choice]));

/** Choices whose labels are names of texts, with the texts. */
export const labelled = <K extends string, C extends { readonly label: K }>(
  choices: readonly (C & { readonly label: K })[],
  say: (name: K) => string,
): (Omit<C, 'label'> & { readonly label: string })[] =>
  choices.map((choice) => ({ ...choice, label: say(choice.label) }));
