import { useEffect, useState } from 'react';
import type { Advice } from '../../../core/rules/advice/advice';
import { useSession, useSessionState } from '../../sheet/use-session';

/**
 * Advice is asked for when the rules and what they count have rested so long; over very many records, where it takes a
 * while, longer.
 */
const REST_MS = 900;
const LONG_REST_MS = 4000;
const MANY_ROWS = 20_000;
const NONE: readonly Advice[] = [];

/** Advice on the rules, kept up with them. */
export function useAdvice(): readonly Advice[] {
  const session = useSession();
  const legend = useSessionState((state) => state.legend);
  const undo = useSessionState((state) => state.undo);
  const isLarge = useSessionState((state) => (state.frame?.rowCount ?? 0) > MANY_ROWS);
  const [advice, setAdvice] = useState(NONE);
  useEffect(() => {
    let isStale = false;
    const waiting = setTimeout(
      () => {
        if (legend.length > 0) void session.ask({ kind: 'ask-advice' }).then((found) => !isStale && setAdvice(found));
      },
      isLarge ? LONG_REST_MS : REST_MS,
    );
    return () => {
      isStale = true;
      clearTimeout(waiting);
    };
  }, [session, legend, undo, isLarge]);
  return legend.length > 0 ? advice : NONE;
}
