import { useEffect, useState } from 'react';
import type { Rule } from '../../../core/rules/shape/rule';
import type { PastAsked, RulePast } from '../../../protocol/rule-past';
import { LatestOnly } from '../../sheet/engine/latest-only';
import { useSession, useSessionState } from '../../sheet/use-session';
import { useNewest } from '../../use-newest';

/** How soon it is asked again while the server is still asked for the history. */
const AGAIN_MS = 250;

/**
 * What a rule would have found, asked again whenever it, the period or the sheet is another one; null until it is known.
 * While a threshold is dragged only the latest place is asked for.
 */
export function useRulePast(rule: Rule | null, past: PastAsked): RulePast | null {
  const session = useSession();
  const legend = useSessionState((state) => state.legend);
  const [told, setTold] = useState<RulePast | null>(null);
  const ask = useNewest(async () => {
    if (rule) setTold(await session.ask({ kind: 'ask-past', rule, past }));
  });
  const [asking] = useState(() => new LatestOnly(() => ask()));
  const asked = JSON.stringify([rule, past]);
  useEffect(() => {
    void asking.run();
  }, [asking, asked, legend]);
  useEffect(() => {
    if (told?.gap !== 'reading') return;
    const again = setTimeout(() => void asking.run(), AGAIN_MS);
    return () => clearTimeout(again);
  }, [asking, told]);
  return rule ? told : null;
}
