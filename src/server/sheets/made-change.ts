import type { Operation } from '../../core/sheet/change';
import type { Access } from '../access/access';
import type { Sql, Transaction } from '../database';

/** Who makes a change. */
export type Author = Pick<Access, 'author' | 'role' | 'own'>;

/** Works out operations for a sheet that is locked, as it is after the change `head`. */
export type Compute = (tx: Transaction, head: number) => Promise<readonly Operation[]>;

/** A change on its way into the database: its operations, or how they are worked out when its turn comes. */
export interface MadeChange {
  readonly sql: Sql;
  readonly by: Author;
  /** Made by its client. */
  readonly id: string;
  /** The last change that its author had seen. */
  readonly seen?: number | undefined;
  readonly operations: readonly Operation[] | Compute;
}

/** The operations of a change that are known before its turn. */
export const knownOperations = ({ operations }: MadeChange): readonly Operation[] | undefined =>
  typeof operations === 'function' ? undefined : operations;
