import sql, { join, raw, type Sql } from 'sql-template-tag';
import { foldText } from '../../values/fold-text';

/** What the values of a column are for rules. A day has no time of day; integers are shown digit by digit. */
export type LinkedType = 'integer' | 'number' | 'text' | 'logical' | 'day' | 'moment';

export interface LinkedColumn {
  readonly name: string;
  readonly type: LinkedType;
  /** True for instants, which are brought into the time zone of the sheet. */
  readonly isZoned?: boolean;
}

/** A table or view of a PostgreSQL database whose rows are records. Fields of rules are its columns, by name. */
export interface LinkedTable {
  /** With its schema where it is not on the search path. */
  readonly name: readonly string[];
  readonly columns: readonly LinkedColumn[];
  /** The columns as formulas name them: those of A, B and so on; null where there is none. As in `columns` where absent. */
  readonly letters?: readonly (string | null)[];
  /** The columns that tell its rows apart and order them. */
  readonly key: readonly string[];
}

/** A name as SQL takes it whatever it contains. */
export const identifier = (name: string): Sql => raw(`"${name.replaceAll('"', '""')}"`);

/** A table by its name and schema. */
export const tableName = ({ name }: Pick<LinkedTable, 'name'>): Sql => join(name.map(identifier), '.');

/** The place of a column among letters; -1 where it has none. */
export const letterOf = ({ columns, letters }: LinkedTable, { name }: LinkedColumn): number =>
  letters ? letters.indexOf(name) : columns.findIndex((column) => column.name === name);

/** The column at a place among letters. */
export const columnAtLetter = ({ columns, letters }: LinkedTable, at: number): LinkedColumn | undefined =>
  letters ? columns.find(({ name }) => name === letters[at]) : columns[at];

/** A column of the row that is looked at. */
export const columnOf = (name: string): Sql => sql`t.${identifier(name)}`;

/** The column that a label names: by its own name, or one that is alike but for case, accents and spaces. */
export function columnByLabel({ columns }: Pick<LinkedTable, 'columns'>): (label: string) => string {
  const alike = new Map(columns.toReversed().map(({ name }) => [foldText(name), name]));
  const names = new Set(columns.map(({ name }) => name));
  return (label) => (names.has(label) ? label : (alike.get(foldText(label)) ?? label));
}

const TYPES: Readonly<Record<string, LinkedType>> = {
  int2: 'integer',
  int4: 'integer',
  int8: 'integer',
  float4: 'number',
  float8: 'number',
  numeric: 'number',
  text: 'text',
  varchar: 'text',
  bpchar: 'text',
  uuid: 'text',
  bool: 'logical',
  date: 'day',
  timestamp: 'moment',
  timestamptz: 'moment',
};

/** A column by the name that PostgreSQL has for its type (pg_type.typname); undefined for types that rules do not read. */
export function linkedColumn(name: string, typeName: string): LinkedColumn | undefined {
  const type = TYPES[typeName];
  return type && { name, type, ...(typeName === 'timestamptz' ? { isZoned: true } : {}) };
}
