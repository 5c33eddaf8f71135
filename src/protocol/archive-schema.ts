import Joi from 'joi';
import { itemAt } from '../core/values/item-at';
import {
  ARCHIVE_FORMAT,
  ARCHIVE_VERSION,
  type ArchivedChange,
  type ArchivedHead,
} from '../core/exchange/archive/archive-lines';
import { BadFile } from '../core/exchange/bad-file';
import { idSchema } from './content-id';
import { LIMITS } from '../core/exchange/limits';
import type { StoredRow } from '../core/sheet/change';
import type { SheetSettings } from '../core/sheet/sheet-settings';
import { fieldSchema, operationSchema, partSchema, storedRow, storedRule } from './change-schema';
import { sheetNameSchema } from './sheet-name';

const settings = Joi.object<SheetSettings>({
  dates: Joi.valid('dmy', 'mdy'),
  zone: Joi.string().max(64),
  firstWeekday: Joi.number().integer().min(0).max(6),
});

/** Milliseconds of the Unix epoch. */
const moment = Joi.number().integer().min(0).max(8.64e15);

const operations = Joi.array().items(operationSchema).max(10_000).required();

const head = Joi.object<ArchivedHead>({
  format: Joi.valid(ARCHIVE_FORMAT).required(),
  version: Joi.valid(ARCHIVE_VERSION)
    .required()
    .messages({
      'any.only': `it is of another version of the app; this one reads archives of version ${ARCHIVE_VERSION}`,
    }),
  name: sheetNameSchema,
  settings: settings.default({}),
  createdAt: moment,
  // So that there is room for all changes to come.
  logFrom: Joi.number().integer().min(0).max(1e12),
  fields: Joi.array().items(fieldSchema).unique('id').min(1).max(LIMITS.fields).required(),
  rules: Joi.array().items(storedRule).unique('id').max(LIMITS.rules).required(),
  parts: Joi.array().items(partSchema).unique('id').max(LIMITS.sheetParts).default([]),
});

const line = Joi.object<ArchiveLine>({
  row: storedRow,
  change: Joi.object<ArchivedChange>({
    id: idSchema.required(),
    author: Joi.string().max(200).required(),
    at: moment.required(),
    seen: Joi.number().integer().min(0),
    operations,
    inverse: operations,
  }),
  end: Joi.object({ rows: Joi.number().integer().required(), changes: Joi.number().integer().required() }),
}).xor('row', 'change', 'end');

/** A line of an archive after its first. */
export interface ArchiveLine {
  readonly row?: StoredRow;
  readonly change?: ArchivedChange;
  readonly end?: { readonly rows: number; readonly changes: number };
}

/** The first line of an archive. Throws a BadFile. */
export const readHeadLine = (text: string): ArchivedHead => checked(text, head, 'line 1');

/** Another line of an archive. Throws a BadFile that names the line, counted from 1. */
export const readArchiveLine = (text: string, number: number): ArchiveLine => checked(text, line, `line ${number}`);

/** Refuses text that the database does not keep: with a NUL, or with half a pair of code units. */
const storable =
  (place: string) =>
  (key: string, value: unknown): unknown => {
    for (const text of [key, value])
      if (typeof text === 'string' && (text.includes('\0') || !text.isWellFormed()))
        throw new BadFile('there is a NUL or half a character in it, which cannot be kept', place);
    return value;
  };

function checked<T>(text: string, schema: Joi.Schema<T>, place: string): T {
  let json: unknown;
  try {
    // Only an escape can hold a character that the database does not store: all else came as UTF-8, where a NUL is no
    // JSON.
    json = text.includes('\\u') ? JSON.parse(text, storable(place)) : JSON.parse(text);
  } catch (error) {
    if (error instanceof BadFile) throw error;
    throw new BadFile('this is no JSON value; expected one a line, as an archive has', place);
  }
  const { error, value } = schema.validate(json, { convert: false, errors: { wrap: { label: false } } });
  if (error) throw new BadFile(itemAt(error.details, 0).message, place);
  return value as T;
}
