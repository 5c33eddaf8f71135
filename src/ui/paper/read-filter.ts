import { FILTER_TESTS, type Filter } from '../../protocol/sheet-view';

/** The filter in the query of an address, as JSON in `filter`; null where there is none, or it is not valid. */
export function readFilter(query: string): Filter | null {
  try {
    const given = JSON.parse(new URLSearchParams(query).get('filter') ?? 'null') as Partial<
      Record<'rule' | 'field' | 'texts' | 'is' | 'value', unknown>
    > | null;
    const { rule, field, texts, is, value } = Object(given) as NonNullable<typeof given>;
    if (typeof rule === 'string') return { rule };
    if (typeof field !== 'string') return null;
    if (Array.isArray(texts) && texts.every((text) => typeof text === 'string')) return { field, texts };
    const test = FILTER_TESTS.find((each) => each === is);
    return test && typeof value === 'string' ? { field, is: test, value } : null;
  } catch {
    return null;
  }
}
