/** A session of the caller. Times are milliseconds of the Unix epoch. */
export interface OwnSession {
  readonly id: string;
  /** The network address that it was begun from, and what the browser calls itself. */
  readonly client: string;
  readonly agent: string;
  readonly beganAt: number;
  readonly usedAt: number;
  /** True for the session that asks. */
  readonly isOwn: boolean;
}
