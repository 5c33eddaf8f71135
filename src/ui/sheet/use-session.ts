import { createContext, useContext, useSyncExternalStore } from 'react';
import type { Session } from './session';
import { START, type SessionState } from './session-state';

export const SessionContext = createContext<Session | null>(null);

/** The session of the sheet that is open here. */
export function useSession(): Session {
  const session = useContext(SessionContext);
  if (!session) throw new TypeError('useSession is used outside a sheet');
  return session;
}

/**
 * A part of the session's state; the component renders again when that part changes. `select` must give the same object
 * for the same state.
 */
export const useSessionState = <T>(select: (state: SessionState) => T): T => useStateOf(useSession(), select);

/** The same for a session that is at hand. */
export function useStateOf<T>(session: Session, select: (state: SessionState) => T): T {
  return useSyncExternalStore(
    session.subscribe,
    () => select(session.get()),
    // What the server rendered: a part of the screen may come to life when the sheet is there already.
    () => select(START),
  );
}
