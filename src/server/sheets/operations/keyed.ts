import equal from 'fast-deep-equal';
import type { Operation } from '../../../core/sheet/change';

/** Items of a sheet that are put and removed whole, by id. */
export interface Keyed {
  readonly id: string;
}

export const idsOf = (items: readonly Keyed[]): string[] => items.map(({ id }) => id);

/** Ids of items that were not there before. */
export function addedTo(before: readonly Keyed[], items: readonly Keyed[]): string[] {
  const known = new Set(idsOf(before));
  return idsOf(items).filter((id) => !known.has(id));
}

const idOf = (item: Keyed | string): string => (typeof item === 'string' ? item : item.id);

/**
 * Of the items (or ids) that undoing a change puts or removes: those that are `now` as the change left them. `name` is
 * the property by which operations hold such items.
 */
export function leftAlone<T extends Keyed | string>(
  items: readonly T[],
  now: readonly Keyed[],
  { name, operations }: { readonly name: 'rules' | 'fields' | 'parts'; readonly operations: readonly Operation[] },
): T[] {
  const present = new Map(now.map((item) => [item.id, item]));
  const left = stateAfter(operations, name);
  return items.filter((item) => left.has(idOf(item)) && equal(present.get(idOf(item)), left.get(idOf(item))));
}

/** The state of such items after a change, by id: the item, or undefined where it removed it. */
function stateAfter(operations: readonly Operation[], name: string): ReadonlyMap<string, Keyed | undefined> {
  const left = new Map<string, Keyed | undefined>();
  for (const operation of operations) {
    if (operation.kind !== `put-${name}` && operation.kind !== `remove-${name}`) continue;
    const items = (operation as unknown as Record<string, readonly (Keyed | string)[]>)[name]!;
    for (const item of items) left.set(idOf(item), typeof item === 'string' ? undefined : item);
  }
  return left;
}
