/** Items of a sheet that are put and removed whole, by id: each step gives its inverse. */
export class KeyedItems<T extends { readonly id: string }> extends Map<string, T> {
  /** Puts items; each replaces the one with its id. */
  put(items: readonly T[]): { readonly before: readonly T[]; readonly added: readonly string[] } {
    const before = items.flatMap(({ id }) => this.get(id) ?? []);
    const added = items.filter(({ id }) => !this.has(id)).map(({ id }) => id);
    for (const item of items) this.set(item.id, item);
    return { before, added };
  }

  /** Removes items; gives those that were there. */
  take(ids: readonly string[]): readonly T[] {
    const before = ids.flatMap((id) => this.get(id) ?? []);
    for (const id of ids) this.delete(id);
    return before;
  }
}
