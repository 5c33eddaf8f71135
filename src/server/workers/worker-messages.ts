import type { Question, Questions, QuestionName } from '../../protocol/channel';

/** The requests of a worker. Each is about one sheet, which can be closed in every worker. */
export interface WorkerRequests extends Questions {
  readonly close: { readonly asked: object; readonly answer: null };
}

/** A request, as it arrives in a worker. */
export type WorkerRequest<Q extends Questions, K extends QuestionName<Q> = QuestionName<Q>> = Question<Q, K> & {
  readonly sheet: string;
};

/** The handlers of a worker's requests: one that returns the wrong shape does not compile. */
export type WorkerHandlers<Q extends Questions> = {
  readonly [K in QuestionName<Q>]: (asked: WorkerRequest<Q, K>) => Q[K]['answer'];
};
