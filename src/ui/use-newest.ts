import { useCallback, useEffect, useRef } from 'react';

/** A function with a stable identity that calls the newest version: its users need not render again. */
export function useNewest<A extends unknown[], R>(run: (...args: A) => R): (...args: A) => R {
  const newest = useRef(run);
  useEffect(() => {
    newest.current = run;
  });
  return useCallback((...args: A) => newest.current(...args), []);
}
