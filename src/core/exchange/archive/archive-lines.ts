import type { StoredRow } from '../../sheet/change';
import type { SheetHead } from '../sheet-contents';

/*
 * A whole sheet as text, one JSON value a line, so that it can be written and read row by row:
 *   { "format": "auxesis-archive", "version": 1, "name", "settings", "createdAt", "logFrom", "fields", "rules", "parts" }
 *   { "row": { "id", "key", "role", "cells", "about" } }           for each row, top to bottom
 *   { "change": { "id", "author", "at", "seen", "operations", "inverse" } }   the log, where it is taken along
 *   { "end": { "rows", "changes" } }                              so that a file that was cut off is noticed
 */
export const ARCHIVE_FORMAT = 'auxesis-archive';
export const ARCHIVE_VERSION = 1;

export interface ArchivedHead extends SheetHead {
  readonly format: typeof ARCHIVE_FORMAT;
  readonly version: number;
  /** When the sheet was made, in milliseconds of the Unix epoch. */
  readonly createdAt?: number;
  /** How many changes came before the first one of the log; 0 where it is absent. */
  readonly logFrom?: number;
}

/** A change of the log as an archive keeps it. */
export interface ArchivedChange {
  readonly id: string;
  /** Who made it, by name. */
  readonly author: string;
  /** When, in milliseconds of the Unix epoch. */
  readonly at: number;
  readonly seen?: number;
  readonly operations: readonly unknown[];
  readonly inverse: readonly unknown[];
}

export const headLine = ({
  name,
  settings = {},
  createdAt,
  logFrom,
  fields,
  rules,
  parts = [],
}: SheetHead & Pick<ArchivedHead, 'createdAt' | 'logFrom'>): string =>
  line({ format: ARCHIVE_FORMAT, version: ARCHIVE_VERSION, name, settings, createdAt, logFrom, fields, rules, parts });
export const rowLine = (row: StoredRow): string => line({ row });
export const changeLine = (change: ArchivedChange): string => line({ change });
export const endLine = (counts: { readonly rows: number; readonly changes: number }): string => line({ end: counts });

const line = (value: object): string => `${JSON.stringify(value)}\n`;
