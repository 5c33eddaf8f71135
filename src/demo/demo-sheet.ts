import { generateNKeysBetween } from 'fractional-indexing';
import { itemAt } from '../core/values/item-at';
import type { Rule } from '../core/rules/shape/rule';
import { storedInOrder } from '../core/rules/shape/stored-in-order';
import type { StoredRow } from '../core/sheet/change';
import { newField, type Field } from '../core/sheet/field';
import type { RowRole } from '../core/sheet/row-role';
import type { SheetPart } from '../core/sheet/sheet-part';
import type { NewSheet } from '../server/sheets/create-sheet';

/** A field with its label. */
export interface DemoField extends Partial<Omit<Field, 'key'>> {
  readonly id: string;
  readonly label: string;
}

export interface DemoRow extends Pick<StoredRow, 'about'> {
  /** By field; records by default. */
  readonly cells: Readonly<Record<string, string>>;
  readonly role?: RowRole;
}

interface DemoContents {
  readonly id: string;
  readonly name: string;
  readonly fields: readonly DemoField[];
  /** Rows above the header. */
  readonly above?: readonly DemoRow[];
  readonly rows: readonly DemoRow[];
  readonly rules: readonly (Omit<Rule, 'on' | 'settles'> & Partial<Rule>)[];
  readonly parts?: readonly SheetPart[];
}

/**
 * A sheet of the demo, with keys for its fields, rows and rules in the order given. Rows are called r1, r2 and so on
 * from the top.
 */
export function demoSheet({ fields, above = [], rows, rules, ...rest }: DemoContents): NewSheet {
  const header: DemoRow = { role: 'header', cells: Object.fromEntries(fields.map(({ id, label }) => [id, label])) };
  const all = [...above, header, ...rows];
  const fieldKeys = generateNKeysBetween(null, null, fields.length);
  const rowKeys = generateNKeysBetween(null, null, all.length);
  return {
    ...rest,
    fields: fields.map(({ label: _, id, ...more }, at) => newField(id, itemAt(fieldKeys, at), more)),
    rows: all.map(({ role = 'record', ...row }, at) => ({ id: `r${at + 1}`, key: itemAt(rowKeys, at), role, ...row })),
    rules: storedInOrder(rules.map((rule) => ({ on: true, settles: false, ...rule }))),
  };
}
