import { useCallback, useState } from 'react';
import type { RuleId } from '../../../core/sheet/ids';
import { ruleSetKey } from '../../../core/sheet/sheet-part';
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

/**
 * Saves rules of this sheet as a new rule set with a name, or as the next version of one, and has the sheet use it, so
 * that it learns of later versions too.
 */
export async function keepAsSet(
  session: Session,
  rules: readonly RuleId[],
  to: RuleSetHead | string,
): Promise<{ readonly name: string; readonly version: number } | { readonly refused: string }> {
  const body = await session.ask({ kind: 'ask-rule-set', rules });
  const sent =
    typeof to === 'string'
      ? await sendJson<{ id: string; version: number }>('/api/rule-sets', { body: { name: to, body } })
      : await sendJson<{ id?: string; version: number }>(`/api/rule-sets/${encodeURIComponent(to.id)}`, {
          method: 'PUT',
          body: { body },
        });
  if ('refused' in sent) return sent;
  const { version } = sent.answer;
  const [set = '', name] = typeof to === 'string' ? [sent.answer.id, to] : [to.id, to.name];
  const own = Object.fromEntries(body.rules.map((rule) => [rule.id, rule.id]));
  const part = { id: ruleSetKey(set), kind: 'rule-set', set, name, version, rules: own } as const;
  await session.withErrorMessage(session.ask({ kind: 'change', operations: [{ kind: 'put-parts', parts: [part] }] }));
  return { name, version };
}
