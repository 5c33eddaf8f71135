/**
 * The entry of a registry by a name that is known at run time only, typed for any of its entries; undefined where there
 * is none. The type of the registry pairs each name with the entry that takes it, which the compiler cannot follow.
 */
export const findEntry = <E>(registry: object, name: string): E | undefined =>
  Object.hasOwn(registry, name) ? (registry as Readonly<Record<string, E>>)[name] : undefined;

/** The same, of a name that the registry has. Throws a RangeError where it has not. */
export function entryOf<E>(registry: object, name: string): E {
  const entry = findEntry<E>(registry, name);
  if (entry === undefined) throw new RangeError(`There is no entry "${name}".`);
  return entry;
}
