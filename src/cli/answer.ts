/** The output of a command, and its exit code. */
export interface Answer {
  readonly text: string;
  readonly code: 0 | 1;
}
