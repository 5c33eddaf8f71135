import { counted } from '../../values/counted';
import type { CellInput, Operation } from '../change';
import { byKey } from '../compare-keys';
import { LAYOUT } from '../effect';
import type { Field } from '../field';
import type { FieldId } from '../ids';
import type { OperationKind, OperationOf } from './operation-kind';

declare module '../change' {
  interface OperationTypes {
    'put-fields': { readonly kind: 'put-fields'; readonly fields: readonly Field[] };
    'remove-fields': { readonly kind: 'remove-fields'; readonly fields: readonly FieldId[] };
  }
}

export const putFields: OperationKind<OperationOf<'put-fields'>> = {
  schema: ({ fields }) => ({ fields }),
  apply(sheet, { fields }) {
    const before = fields.flatMap(({ id }) => sheet.fields[sheet.findColumn(id) ?? -1] ?? []);
    const added = fields.filter(({ id }) => sheet.findColumn(id) === undefined).map(({ id }) => id);
    const byId = new Map(sheet.fields.map((field) => [field.id, field]));
    for (const field of fields) byId.set(field.id, field);
    sheet.arrangeFields([...byId.values()].sort(byKey));
    const inverse: Operation[] = [];
    if (added.length) inverse.push({ kind: 'remove-fields', fields: added });
    if (before.length) inverse.push({ kind: 'put-fields', fields: before });
    return { effects: [LAYOUT], inverse };
  },
  words: ({ fields }) => [`${counted(fields.length, 'field')} changed`],
  size: () => 1,
  // The reader's fields are computed from the sheet again where it changes; so are parts and rules.
  restrict: () => [],
  describes: true,
};

export const removeFields: OperationKind<OperationOf<'remove-fields'>> = {
  schema: ({ ids }) => ({ fields: ids }),
  apply(sheet, { fields: ids }) {
    const gone = new Set(ids);
    const before = sheet.fields.filter(({ id }) => gone.has(id));
    const stores = before.map(({ id }) => ({ field: id, store: sheet.column(sheet.findColumn(id)!) }));
    const cells: CellInput[] = stores.flatMap(({ field, store }) =>
      sheet.order.flatMap((slot) => {
        const input = store.inputAt(slot);
        return input === '' ? [] : { row: sheet.rowId(slot), field, input };
      }),
    );
    const isThere = new Set(sheet.order);
    const styles = stores.flatMap(({ field, store }) =>
      [...store.styles].flatMap(([slot, style]) => (isThere.has(slot) ? { row: sheet.rowId(slot), field, style } : [])),
    );
    sheet.arrangeFields(sheet.fields.filter(({ id }) => !gone.has(id)));
    const inverse: Operation[] = before.length ? [{ kind: 'put-fields', fields: before }] : [];
    if (cells.length) inverse.push({ kind: 'set-cells', cells });
    if (styles.length) inverse.push({ kind: 'set-styles', cells: styles });
    return { effects: before.length ? [LAYOUT] : [], inverse };
  },
  words: ({ fields }) => [`${counted(fields.length, 'field')} deleted`],
  size: () => 1,
  restrict: () => [],
};
