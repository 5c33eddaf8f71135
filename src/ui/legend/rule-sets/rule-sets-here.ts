import { useCallback, useState } from 'react';
import { messageOf } from '../../../core/values/error-message';
import { sheetUrl } from '../../../protocol/sheet-url';
import type { RuleSetHead, RuleSetWhole } from '../../../protocol/rule-sets';
import { sendJson } from '../../../engine/link/send-json';
import type { Session } from '../../sheet/session';

/** The rule sets that can be used in the sheet, as they are when they are read. */
export function useRuleSets(session: Session): {
  sets: readonly RuleSetHead[] | null;
  error: string | null;
  read: () => Promise<void>;
} {
  const [sets, setSets] = useState<readonly RuleSetHead[] | null>(null);
  const [error, setError] = useState<string | null>(null);
  const read = useCallback(async () => {
    const sent = await sendJson<RuleSetHead[]>(sheetUrl(session.sheet, 'rule-sets'), {
      method: 'GET',
    });
    if ('refused' in sent) setError(sent.refused);
    else setSets(sent.answer);
  }, [session]);
  return { sets, error, read };
}

/** Brings a rule set to work here, as it is now. Gives what went wrong. */
export async function bringIn(session: Session, set: string): Promise<string | null> {
  const sent = await sendJson<RuleSetWhole>(sheetUrl(session.sheet, `rule-sets?set=${encodeURIComponent(set)}`), {
    method: 'GET',
  });
  if ('refused' in sent) return sent.refused;
  const { id, name, version, body } = sent.answer;
  try {
    await session.ask({ kind: 'use-rule-set', set: { id, name, version, body } });
    return null;
  } catch (failed) {
    return messageOf(failed);
  }
}
