import { useEffect, useState } from 'react';
import type { OutcomeTallies } from '../../core/rules/outcome-tallies';
import { useSession, useSessionState } from '../sheet/use-session';

/** The outcomes of the rule on the bench by field and by record, as they are now; null until that is known. */
export function useTallies(): OutcomeTallies | null {
  const session = useSession();
  const legend = useSessionState((state) => state.legend);
  const rule = useSessionState((state) => state.bench?.draft.id);
  const [tallies, setTallies] = useState<OutcomeTallies | null>(null);
  useEffect(() => {
    if (rule === undefined) return;
    let isStale = false;
    void session.ask({ kind: 'ask-tallies', rule }).then((answer) => !isStale && setTallies(answer));
    return () => {
      isStale = true;
    };
  }, [session, legend, rule]);
  return tallies;
}
