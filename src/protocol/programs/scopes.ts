/** The scopes of a program on a sheet, and the words for them when a token is made. */
export const SCOPES = {
  read: 'read records, with their looks and the names of their rules',
  write: 'add and change records',
  rules: 'read and replace rules',
  findings: 'receive findings: what enters and leaves each rule',
} as const;

/** Days for which a token may be made. */
export const TOKEN_DAYS = [30, 90, 365, 1095] as const;

export type Scope = keyof typeof SCOPES;

/** A program that has a token to a sheet. */
export interface SheetProgram {
  readonly id: string;
  readonly name: string;
  readonly scopes: readonly Scope[];
  /** Milliseconds of the Unix epoch. */
  readonly createdAt: number;
  readonly endsAt: number | null;
  readonly usedAt: number | null;
}

/** The same with its token, which is sent once. */
export interface MadeProgram extends SheetProgram {
  readonly token: string;
}
