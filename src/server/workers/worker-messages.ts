/** The requests of a worker, by kind, each with what it is answered with. A sheet can be closed in every worker. */
export interface WorkerRequests {
  readonly [kind: string]: { readonly asked: object; readonly answer: unknown };
  readonly close: { readonly asked: object; readonly answer: null };
}

/** A request on its way to a worker. */
export type WorkerRequest<Q extends WorkerRequests> = {
  readonly [K in keyof Q & string]: { readonly kind: K; readonly id: number; readonly sheet: string } & Q[K]['asked'];
}[keyof Q & string];

/** What a worker sends: the answer to a request, or an event that nobody asked for. */
export type WorkerReply<Event> =
  | { readonly id: number; readonly done: unknown }
  | { readonly id: number; readonly failed: string }
  | { readonly event: Event };
