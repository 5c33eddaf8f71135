import type { RowAbout, RowChange } from './change';
import type { RowRole } from './row-role';

/** The format of a row without the styles of its cells. */
export type OwnAbout = Omit<RowAbout, 'styles'>;
export type NullableAbout = { readonly [K in keyof OwnAbout]: OwnAbout[K] | null };

export const NO_FORMAT: OwnAbout = {};

/** The part of it that a change sets. */
export const aboutOf = ({ style, heightPx, level }: RowChange): NullableAbout => ({
  ...(style === undefined ? {} : { style }),
  ...(heightPx === undefined ? {} : { heightPx }),
  ...(level === undefined ? {} : { level }),
});

/** Without what was taken away; undefined where nothing is left. */
export function compactFormat(about: NullableAbout): OwnAbout | undefined {
  const given = Object.entries(about).filter(([, value]) => value !== null && value !== undefined);
  return given.length ? (Object.fromEntries(given) as OwnAbout) : undefined;
}

/** The inverse of a change of a row: the properties that it sets, as they are now. */
export function rowBefore(
  now: { readonly key: string; readonly role: RowRole; readonly about: OwnAbout },
  { id, ...change }: RowChange,
): RowChange {
  const before: { -readonly [K in keyof RowChange]: RowChange[K] } = { id };
  if (change.key !== undefined) before.key = now.key;
  if (change.role !== undefined) before.role = now.role;
  if (change.style !== undefined) before.style = now.about.style ?? null;
  if (change.heightPx !== undefined) before.heightPx = now.about.heightPx ?? null;
  if (change.level !== undefined) before.level = now.about.level ?? null;
  return before;
}

/** Whether a change sets anything besides the row's order key and role. */
export const changesAbout = ({ style, heightPx, level }: RowChange): boolean =>
  style !== undefined || heightPx !== undefined || level !== undefined;
