/** The role of a row. Rules read records by default. */
export const ROW_ROLES = ['title', 'header', 'record', 'group', 'total', 'note'] as const;
export type RowRole = (typeof ROW_ROLES)[number];

/** One-byte code of a role in the store; 255 marks a slot whose row was removed. */
export const roleCode = (role: RowRole): number => ROW_ROLES.indexOf(role);
export const REMOVED = 255;
