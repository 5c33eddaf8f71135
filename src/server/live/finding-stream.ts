import { lastItem } from '../../core/values/item-at';
import type { SheetId } from '../../core/sheet/ids';
import type { Served } from '../access/access-channel';
import type { Sql } from '../database';
import { pageOfFindings } from '../sql/finding';
import { eventStream, type EventStream } from './event-stream';
import { liveHub } from './hub';

/** Findings in one event. */
const AT_ONCE = 200;

interface FindingStreamQuery {
  readonly sheet: SheetId;
  /** The last finding that was heard; null to begin with those that come. */
  readonly after: number | null;
  readonly signal: AbortSignal;
  readonly served: Served;
  readonly mayRead: () => Promise<boolean>;
}

/**
 * Server-sent events of a sheet's findings as they come: `findings` with the id of the last, so that a connection that
 * broke goes on from there.
 */
export function findingStream(sql: Sql, { sheet, after, signal, served, mayRead }: FindingStreamQuery): EventStream {
  return eventStream({
    served,
    signal,
    mayRead,
    async start(send) {
      let last = after ?? (await pageOfFindings(sql, sheet, { limit: 1 }))[0]?.id ?? 0;
      let isBusy = false;
      let isAgain = false;
      const look = async (): Promise<void> => {
        isAgain = true;
        if (isBusy) return;
        isBusy = true;
        while (isAgain) {
          isAgain = false;
          const findings = await pageOfFindings(sql, sheet, { limit: AT_ONCE, after: last }).catch(() => []);
          if (findings.length === 0) continue;
          last = lastItem(findings).id;
          send({ event: 'findings', data: findings, id: String(last) });
          isAgain = isAgain || findings.length === AT_ONCE;
        }
        isBusy = false;
      };
      const stop = await liveHub().watchFindings(sheet, () => void look());
      await look();
      return stop;
    },
  });
}
