/** A mail that would have been sent. */
export interface OutboxMail {
  readonly id: number;
  readonly recipient: string;
  readonly subject: string;
  readonly body: string;
  /** Milliseconds of the Unix epoch. */
  readonly at: number;
}
