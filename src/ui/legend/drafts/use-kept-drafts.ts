import { useEffect } from 'react';
import { KINDS } from '../../../core/rules/kinds/registry';
import { hasKey } from '../../../core/values/typed-keys';
import { parseMessage } from '../../../protocol/parse-message';
import type { Session } from '../../sheet/session';
import { isUnkept, type Bench } from '../../sheet/session-state';

/**
 * Keeps the drafts of one person and sheet in this browser, that on the bench included, until they are saved or
 * discarded. Somebody without a key has none.
 */
export function useKeptDrafts(session: Session, person: string | undefined): void {
  useEffect(() => {
    if (!session.isMaker || person === undefined) return;
    const name = `drafts ${person} ${session.sheet}`;
    session.set({ drafts: read(name) });
    const write = () => {
      const { bench, drafts } = session.get();
      const all = bench && isUnkept(bench) ? [bench, ...drafts] : drafts;
      if (all.length) localStorage.setItem(name, JSON.stringify(all));
      else localStorage.removeItem(name);
    };
    window.addEventListener('pagehide', write);
    return () => {
      window.removeEventListener('pagehide', write);
      write();
    };
  }, [session, person]);
}

/** What this page wrote before; nothing where it cannot be read any more. */
function read(name: string): readonly Bench[] {
  try {
    const drafts = parseMessage<readonly Bench[]>(localStorage.getItem(name) ?? '[]');
    return drafts.filter(({ draft }) => hasKey(KINDS, draft.rule.when.kind));
  } catch {
    return [];
  }
}
