/** The keys of an object that has no others than its type says, such as a table of words. */
export const keysOf = <K extends string>(object: Readonly<Record<K, unknown>>): K[] => Object.keys(object) as K[];

/** An object with these keys, each with its value. */
export const recordOf = <K extends string, V>(keys: readonly K[], valueOf: (key: K) => V): Record<K, V> =>
  Object.fromEntries(keys.map((key) => [key, valueOf(key)])) as Record<K, V>; // exactly these keys

/** The member that a text names, such as the value of an HTML select. Throws a RangeError where there is none. */
export function memberOf<K extends string>(members: readonly K[], text: string): K {
  const member = members.find((each) => each === text);
  if (member === undefined) throw new RangeError(`"${text}" is none of ${members.join(', ')}.`);
  return member;
}

/** True where a table has this key. */
export const hasKey = <K extends string>(table: Readonly<Record<K, unknown>>, key: string): key is K =>
  Object.hasOwn(table, key);
