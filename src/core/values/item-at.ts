/** The item of a list at an index that the caller knows to be in it. Throws a RangeError where it is not. */
export function itemAt<T>(list: ArrayLike<T>, index: number): T {
  const item = list[index];
  if (item === undefined && !(index >= 0 && index < list.length))
    throw new RangeError(`There is no item ${index} in a list of ${list.length}.`);
  return item as T; // in range: undefined only where the list holds undefined
}

/** The last item of a list that has one. Throws a RangeError where it has none. */
export const lastItem = <T>(list: ArrayLike<T>): T => itemAt(list, list.length - 1);
