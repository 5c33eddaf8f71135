/** The message of what was thrown. */
export const messageOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));

/** The code of an error of the system or the database, such as `ENOENT`; undefined where it has none. */
export const codeOf = (error: unknown): string | undefined =>
  error instanceof Error && 'code' in error && typeof error.code === 'string' ? error.code : undefined;
