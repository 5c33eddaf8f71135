import { useEffect, useState } from 'react';
import type { Reading } from '../../core/rules/formula-readings';
import { useSession, useSessionState } from '../sheet/use-session';

/** How the formula of the rule on the bench reads at several cells, the selected one among them; none until that is known. */
export function useReadings(): readonly Reading[] {
  const session = useSession();
  const legend = useSessionState((state) => state.legend);
  const rule = useSessionState((state) => state.bench?.draft.id);
  const anchor = useSessionState((state) => state.selection.anchor);
  const [readings, setReadings] = useState<readonly Reading[]>([]);
  useEffect(() => {
    if (rule === undefined) return;
    let isStale = false;
    void session.ask({ kind: 'ask-readings', rule, at: anchor }).then((answer) => !isStale && setReadings(answer));
    return () => {
      isStale = true;
    };
  }, [session, legend, rule, anchor]);
  return readings;
}
