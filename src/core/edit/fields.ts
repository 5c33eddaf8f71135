import { itemAt } from '../values/item-at';
import { MAX_ALLOWED } from '../sheet/allowed-values';
import { newField, type Field } from '../sheet/field';
import { keysAt } from '../sheet/layout/keys-at';
import type { Sheet } from '../sheet/sheet';
import { countWords, EditRefusal, type Editor } from './editor';

interface Fields {
  readonly left: number;
  readonly right: number;
}

const countOf = ({ left, right }: Fields): number => right - left + 1;
const fieldsIn = (sheet: Sheet, { left, right }: Fields): readonly Field[] => sheet.fields.slice(left, right + 1);

/** New fields before a place, as wide as their neighbour. */
export const insertFields: Editor<{ readonly at: number; readonly count: number }> = {
  operations(sheet, { at, count }, { newId }) {
    const { widthPx = 120 } = sheet.fields[Math.max(0, at - 1)] ?? {};
    return [
      { kind: 'put-fields', fields: keysAt(sheet.fields, at, count).map((key) => newField(newId(), key, { widthPx })) },
    ];
  },
  says: ({ count }) => `insert ${countWords(count, 'field')}`,
};

export const removeFields: Editor<Fields> = {
  operations(sheet, fields) {
    if (countOf(fields) >= sheet.fields.length)
      throw new EditRefusal('A sheet keeps at least one field, so not all of them can be deleted.');
    return [{ kind: 'remove-fields', fields: fieldsIn(sheet, fields).map(({ id }) => id) }];
  },
  says: (fields) => `delete ${countWords(countOf(fields), 'field')}`,
};

/** Moves fields so that they stand before the field that is at a place now. */
export const moveFields: Editor<Fields & { readonly to: number }> = {
  operations(sheet, { left, right, to }) {
    if (to >= left && to <= right + 1) return [];
    const moving = fieldsIn(sheet, { left, right });
    const keys = keysAt(
      sheet.fields.toSpliced(left, moving.length),
      to > right ? to - moving.length : to,
      moving.length,
    );
    return [{ kind: 'put-fields', fields: moving.map((field, at) => ({ ...field, key: itemAt(keys, at) })) }];
  },
  says: (fields) => `move ${countWords(countOf(fields), 'field')}`,
};

export const setWidths: Editor<Fields & { readonly widthsPx: readonly number[] }> = {
  operations: (sheet, { widthsPx, ...fields }) => [
    {
      kind: 'put-fields',
      fields: fieldsIn(sheet, fields).map((field, at) => ({
        ...field,
        widthPx: Math.max(24, Math.min(2000, Math.round(widthsPx[at] ?? itemAt(widthsPx, 0)))),
      })),
    },
  ],
  says: ({ widthsPx: _, ...fields }) => `width of ${countWords(countOf(fields), 'field')}`,
};

export const hideFields: Editor<Fields & { readonly hidden: boolean }> = {
  operations(sheet, { hidden, ...fields }) {
    const changed = fieldsIn(sheet, fields).filter((field) => (field.hidden ?? false) !== hidden);
    const staying = sheet.fields.filter((field) => !field.hidden && !changed.includes(field));
    if (hidden && staying.length === 0)
      throw new EditRefusal('At least one field stays in view, so not all of them can be hidden.');
    return changed.length
      ? [
          {
            kind: 'put-fields',
            fields: changed.map(({ hidden: _, ...field }) => (hidden ? { ...field, hidden } : field)),
          },
        ]
      : [];
  },
  says: ({ hidden, ...fields }) => `${hidden ? 'hide' : 'show'} ${countWords(countOf(fields), 'field')}`,
};

/** Gives fields a list of values, in the order given, each once; null lets them take any. */
export const setAllowed: Editor<Fields & { readonly allowed: readonly string[] | null }> = {
  operations(sheet, { allowed, ...fields }) {
    const values = [...new Set(allowed?.map((value) => value.trim()).filter((value) => value !== ''))];
    if (values.length > MAX_ALLOWED)
      throw new EditRefusal(`A list has at most ${MAX_ALLOWED} values; these are ${values.length}.`);
    const given = fieldsIn(sheet, fields).map(({ allowed: _, ...field }) =>
      values.length ? { ...field, allowed: values } : field,
    );
    return [{ kind: 'put-fields', fields: given }];
  },
  says: ({ allowed: _, ...fields }) => `values of ${countWords(countOf(fields), 'field')}`,
};
