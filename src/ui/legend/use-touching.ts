import { useEffect, useState } from 'react';
import type { RuleId } from '../../core/sheet/ids';
import { selectedAreas } from '../grid/engine/selection';
import { useSession, useSessionState } from '../sheet/use-session';

/**
 * The rules that read or paint a selected cell, while only those are to be shown; null while all are, or until it is
 * known.
 */
export function useTouching(): readonly RuleId[] | null {
  const session = useSession();
  const isAsked = useSessionState((state) => state.onlyTouching);
  const selection = useSessionState((state) => state.selection);
  const legend = useSessionState((state) => state.legend);
  const [touching, setTouching] = useState<readonly RuleId[] | null>(null);
  useEffect(() => {
    if (!isAsked) return;
    let isStale = false;
    void session
      .ask({ kind: 'ask-touching', areas: selectedAreas(selection) })
      .then((found) => !isStale && setTouching(found));
    return () => {
      isStale = true;
    };
  }, [session, isAsked, selection, legend]);
  return isAsked ? touching : null;
}
