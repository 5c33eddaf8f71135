import { hasLegend, ROLES } from '../../core/sharing/role';
import type { Served } from '../access/access-channel';
import type { SheetId } from '../../core/sheet/ids';
import type { Present } from '../../protocol/presence';
import { painter, type ViewPlace } from '../painter/painter';
import type { ViewOf } from '../painter/painted-view';
import { database } from '../database';
import { eventStream, type EventStream } from './event-stream';
import { liveHub } from './hub';
import { leave } from './presence';

interface ReaderStreamQuery {
  readonly sheet: SheetId;
  readonly of: ViewOf;
  readonly from: ViewPlace;
  /** The presence key of the page: it has left when the stream ends. */
  readonly page?: string | undefined;
  readonly signal: AbortSignal;
  readonly served: Served;
  readonly mayRead: () => Promise<boolean>;
}

/**
 * Server-sent events for a reader without rules: `repaint` with the differences, or `stale` where the reader must load
 * again.
 */
export function paintedStream({ sheet, of, from, page, signal, served, mayRead }: ReaderStreamQuery): EventStream {
  return eventStream({
    served,
    signal,
    mayRead,
    async start(send) {
      const { presence } = liveHub();
      // Fillers do not learn of one another, and viewers not where somebody is: it might be in a hidden cell.
      const seen = (present: readonly Present[]) =>
        present.flatMap((one) => (ROLES[one.role].isSeen ? { ...one, place: null } : []));
      const unwatch = hasLegend(of.reader.role)
        ? presence.watch(sheet, (present) => send({ event: 'presence', data: seen(present) }))
        : () => {};
      const unfollow = await painter().follow(sheet, { of, from }, (repaint) =>
        repaint === 'stale'
          ? send({ event: 'stale', data: {} })
          : send({ event: 'repaint', data: repaint, id: `${from.view}.${repaint.revision}` }),
      );
      return () => {
        unwatch();
        unfollow();
        if (page !== undefined) leave(database(), sheet, page);
      };
    },
  });
}
