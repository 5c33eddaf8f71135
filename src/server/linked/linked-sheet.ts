import type { LinkedTable } from '../../core/rules/sql/linked-table';
import type { SheetId } from '../../core/sheet/ids';
import type { SheetSettings } from '../../core/sheet/sheet-settings';
import { messageOf } from '../../core/values/error-message';
import type { LinkedConnection } from '../../linked/linked-connection';
import { NotLinked } from '../../linked/read-linked-table';
import { refusalText } from '../../texts/refusal-text';
import { database } from '../database';
import { Refusal } from '../refusal';
import { settings } from '../settings';
import { readFields } from '../sql/field';
import { findLinkedTable, type FieldColumn } from '../sql/linked-table';
import { findSheet } from '../sql/sheet';
import { requireLinkedHost } from './linked-address';
import { linkedDatabase } from './linked-pool';
import { unseal } from './seal';

/** The linked table of a sheet, ready to be asked. */
export interface LinkedSheet {
  readonly host: string;
  /** Its address, with the password: never sent to anybody. */
  readonly url: string;
  readonly table: Omit<LinkedTable, 'columns'> & { readonly columns: readonly FieldColumn[] };
  /** Asks its database, in turn with other questions of the sheet. Throws a Refusal where it does not answer in time. */
  readonly ask: <T>(question: (connection: LinkedConnection) => Promise<T>) => Promise<T>;
  readonly settings: SheetSettings;
}

/**
 * The linked table of a sheet; undefined where its records are in the sheet. Throws a Refusal where the setting no longer
 * allows its database.
 */
export async function findLinkedSheet(sheet: SheetId): Promise<LinkedSheet | undefined> {
  const stored = await findLinkedTable(database(), sheet);
  const head = stored && (await findSheet(database(), sheet));
  if (!head) return undefined;
  const url = unseal(stored.sealed);
  const host = requireLinkedHost(url, settings());
  const nameOf = new Map(stored.columns.map(({ field, name }) => [field, name]));
  // Formulas name columns by where their fields stand now.
  const letters = (await readFields(database(), sheet)).map(({ id }) => nameOf.get(id) ?? null);
  const table = { name: stored.relation, columns: stored.columns, letters, key: stored.key };
  const { connection, inTurn } = linkedDatabase(sheet, url);
  return {
    host,
    url,
    table,
    settings: head.settings,
    ask: (question) => asking(() => inTurn(() => question(connection))),
  };
}

/** Asks a linked database. Throws a Refusal in plain words where it does not answer, or not in time. */
export async function asking<T>(task: () => Promise<T>): Promise<T> {
  try {
    return await task();
  } catch (error) {
    if (error instanceof Refusal) throw error;
    if (error instanceof NotLinked) throw new Refusal('bad-request', sentence(error.message));
    const message = messageOf(error);
    if (message.includes('statement timeout')) throw new Refusal('too-costly', refusalText('databaseTookTooLong'));
    throw new Refusal('bad-request', refusalText('databaseCannotBeAsked', { message }));
  }
}

const sentence = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1)}.`;
