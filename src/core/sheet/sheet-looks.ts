import type { LookPart, SheetPart } from './sheet-part';
import { FIRST_FAMILY, type Theme } from '../looks/first-family';
import { type Look, plainLook } from '../looks/look';

/** A look by its id, as it is called and as it is in one theme. */
export interface NamedLook {
  readonly id: string;
  readonly name: string;
  readonly look: Look;
}

const PREFIX = 'look-';
/** The look that a part saves, by the part's id; undefined where that is no part of a look. */
export const lookOfPart = (id: string): string | undefined =>
  id.startsWith(PREFIX) ? id.slice(PREFIX.length) : undefined;
/** How the ids of looks begin that a sheet has saved itself. */
export const OWN_LOOK = 'saved-';

/** The looks of a sheet in one theme: the first family, changed where the sheet has changed it, and then its own. */
export function sheetLooks(parts: readonly LookPart[], theme: Theme): NamedLook[] {
  const own = parts.map(({ id, name, look, dark }): NamedLook => ({
    id: lookOfPart(id) ?? id,
    name,
    look: (theme === 'dark' && dark) || look,
  }));
  const family = FIRST_FAMILY.map(
    ({ id, name, [theme]: look }): NamedLook => own.find((each) => each.id === id) ?? { id, name, look },
  );
  return [...family, ...own.filter(({ id }) => !FIRST_FAMILY.some((look) => look.id === id))];
}

export const looksById = (looks: readonly NamedLook[]): Record<string, Look> =>
  Object.fromEntries(looks.map(({ id, look }) => [id, look]));

/** The looks by id that rules of a sheet with these parts name, in one theme. */
export const savedLooks = (parts: Iterable<SheetPart>, theme: Theme): Record<string, Look> =>
  looksById(sheetLooks(lookParts(parts), theme));

export const lookParts = (parts: Iterable<SheetPart>): LookPart[] => [...parts].filter((part) => part.kind === 'look');

/** The part that gives a look another name and leaves it as it is, in both themes. */
export function renamedLook({ id, look }: NamedLook, name: string): LookPart {
  const family = FIRST_FAMILY.find((each) => each.id === id);
  return { id: PREFIX + id, kind: 'look', name, ...(family ? { look: family.light, dark: family.dark } : { look }) };
}

/** The part that saves a look under an id and name; what it takes from a saved look becomes its own. */
export const lookPart = ({ id, name, look }: NamedLook, saved: Readonly<Record<string, Look>>): LookPart => ({
  id: PREFIX + id,
  kind: 'look',
  name,
  look: plainLook(look, saved),
});
