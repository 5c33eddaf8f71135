import { useCallback, useEffect, useState } from 'react';
import { sendJson } from '../../engine/link/send-json';

interface Loaded<T> {
  /** What the server has answered; null until it has. */
  readonly value: T | null;
  /** Why it could not be loaded; null where it could. */
  readonly error: string | null;
  readonly reload: () => void;
}

/** What the server has at a path: loaded when the component is shown, and again by `reload`. */
export function useLoaded<T>(path: string): Loaded<T> {
  const [loaded, setLoaded] = useState<Omit<Loaded<T>, 'reload'>>({ value: null, error: null });
  const [round, setRound] = useState(0);
  useEffect(() => {
    let isShown = true;
    void sendJson<T>(path, { method: 'GET' }).then((sent) => {
      if (!isShown) return;
      if ('refused' in sent) setLoaded((before) => ({ ...before, error: sent.refused }));
      else setLoaded({ value: sent.answer, error: null });
    });
    return () => {
      isShown = false;
    };
  }, [path, round]);
  const reload = useCallback(() => setRound((before) => before + 1), []);
  return { ...loaded, reload };
}
