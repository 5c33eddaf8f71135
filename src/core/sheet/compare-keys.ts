/** Order keys are compared by code units, as PostgreSQL does with collate "C". */
export const compareKeys = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);

/** In order of their keys; of two with the same key, made at once by different people, the id decides. */
export const byKey = (
  a: { readonly key: string; readonly id: string },
  b: { readonly key: string; readonly id: string },
): number => compareKeys(a.key, b.key) || compareKeys(a.id, b.id);
