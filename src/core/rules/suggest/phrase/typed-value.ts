import type { Contents } from '../field-contents';
import { readThreshold, type Typed } from '../../shape/read-threshold';
import type { NamedField } from '../../shape/sentence-words';

/** What a typed value must be. */
export type Needed = 'number' | 'date' | 'any';

/** What a value must be to be compared with a field that holds nothing but numbers, or dates. */
export function neededFor(contents: ReadonlySet<Contents> | undefined): Needed {
  if (!contents || contents.size === 0 || contents.has('texts')) return 'any';
  return contents.has('numbers') ? 'number' : 'date';
}

/** A value that was typed in the format and unit of a field; undefined where it is not what is needed. */
export function typedValue(text: string, field: NamedField, needed: Needed): Typed | undefined {
  const number = needed === 'date' ? undefined : typedNumber(text, field);
  return number ?? (needed === 'number' ? undefined : readThreshold(text, { format: field.format, takes: needed }));
}

/** A number as people type one: with the unit of the field or a currency sign, its thousands apart. */
export function typedNumber(text: string, { format, unit }: NamedField): number | undefined {
  const escaped = unit?.replace(/[^\p{L}\p{N}]/gu, '\\$&');
  const bare = (escaped ? text.replace(new RegExp(`\\s*${escaped}$`, 'iu'), '') : text)
    .trim()
    .replace(/^[−-]/, '-')
    .replace(/^(-?)\s*\p{Sc}\s*/u, '$1')
    .replace(/\s*\p{Sc}$/u, '')
    .replace(/(?<=\d)\s(?=\d{3}(?!\d))/gu, '');
  const value = bare === '' ? undefined : readThreshold(bare, { format, takes: 'number' });
  return typeof value === 'number' ? value : undefined;
}
