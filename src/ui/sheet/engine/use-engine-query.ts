import { useEffect, useState } from 'react';
import { parseMessage } from '../../../protocol/parse-message';
import type { AnswerOf, Request } from '../../../protocol/engine-messages';
import { useSession, useSessionState } from '../use-session';

/**
 * The engine's answer to a request about the rules, asked again whenever they or their counts have changed; null until
 * it has answered.
 */
export function useEngineQuery<R extends Request>(request: R): AnswerOf<R['kind']> | null {
  const session = useSession();
  const legend = useSessionState((state) => state.legend);
  const [answer, setAnswer] = useState<AnswerOf<R['kind']> | null>(null);
  // The same object while the request is equal.
  const asked = JSON.stringify(request);
  useEffect(() => {
    let isStale = false;
    void session.ask(parseMessage<R>(asked)).then((told) => !isStale && setAnswer(told));
    return () => {
      isStale = true;
    };
  }, [session, legend, asked]);
  return answer;
}
