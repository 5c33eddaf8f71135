import { useEffect, useState } from 'react';
import type { GivenLook } from '../../protocol/packed/painted-sheet';
import type { Editing } from '../sheet/session-state';
import { useSession } from '../sheet/use-session';

/** How long typing must rest before it is judged. */
const REST_MS = 150;

/**
 * How what is being typed is judged, for fillers who see that while they type; null for everybody else, and until it is
 * known.
 */
export function useJudged(editing: Editing | null): GivenLook | null {
  const session = useSession();
  const [judged, setJudged] = useState<{ readonly of: string; readonly look: GivenLook | null } | null>(null);
  const cell = session.isMaker ? undefined : editing?.cell;
  const input = editing?.text ?? '';
  const of = cell ? `${cell.row} ${cell.field} ${input}` : '';
  useEffect(() => {
    if (!cell) return;
    let isOver = false;
    const waiting = setTimeout(() => {
      void session.ask({ kind: 'judge', cell, input }).then((look) => !isOver && setJudged({ of, look }));
    }, REST_MS);
    return () => {
      isOver = true;
      clearTimeout(waiting);
    };
  }, [session, cell, input, of]);
  return judged?.of === of ? judged.look : null;
}
