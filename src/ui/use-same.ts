import equal from 'fast-deep-equal';
import { useState } from 'react';

/** The same object while it is equal: what shows it need not render again. */
export function useSame<T>(value: T): T {
  const [kept, keep] = useState(value);
  if (kept === value || equal(kept, value)) return kept;
  keep(value);
  return value;
}
