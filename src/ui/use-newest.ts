import { useCallback, useEffect, useRef } from 'react';

/**
 * A function that stays the same from one rendering to the next and does what the newest one says: what takes it need
 * not be rendered again.
 */
export function useNewest<A extends unknown[], R>(run: (...args: A) => R): (...args: A) => R {
  const newest = useRef(run);
  useEffect(() => {
    newest.current = run;
  });
  return useCallback((...args: A) => newest.current(...args), []);
}
