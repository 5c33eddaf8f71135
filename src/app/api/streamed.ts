/** An answer that goes on: server-sent events, which nothing on the way may hold back. */
export const streamed = (stream: ReadableStream<Uint8Array>): Response =>
  new Response(stream, {
    headers: {
      'content-type': 'text/event-stream; charset=utf-8',
      'cache-control': 'no-store, no-transform',
      'x-accel-buffering': 'no',
    },
  });
