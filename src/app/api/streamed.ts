import { EVENT_HEADERS, readableOf, type EventStream } from '../../server/live/event-stream';

/** An answer that goes on: server-sent events. */
export const streamed = (stream: EventStream): Response => new Response(readableOf(stream), { headers: EVENT_HEADERS });
