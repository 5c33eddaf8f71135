import type { SheetId } from '../../core/sheet/ids';
import { painter, type ViewPlace } from '../painter/painter';
import type { ViewOf } from '../painter/painted-view';
import { eventStream } from './event-stream';

interface Followed {
  readonly sheet: SheetId;
  readonly of: ViewOf;
  readonly from: ViewPlace;
  readonly signal: AbortSignal;
  readonly mayRead: () => Promise<boolean>;
}

/** Server-sent events for a reader who gets no rules: `repaint` with what is different, or `stale` where they must begin anew. */
export function paintedStream({ sheet, of, from, signal, mayRead }: Followed): ReadableStream<Uint8Array> {
  return eventStream({
    signal,
    mayRead,
    start: (send) =>
      painter().follow(sheet, { of, from }, (repaint) =>
        repaint === 'stale' ? send({ event: 'stale', data: {} }) : send({ event: 'repaint', data: repaint, id: `${from.view}.${repaint.revision}` }),
      ),
  });
}
