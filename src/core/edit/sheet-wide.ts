import type { Operation } from '../sheet/change';
import type { SheetPart } from '../sheet/sheet-part';
import type { Sheet } from '../sheet/sheet';
import type { Editor } from './editor';

/** Keeps the first fields in view, up to a column, while the others scroll; null lets all of them scroll. */
export const freezeFields: Editor<{ readonly through: number | null }> = {
  operations(sheet, { through }) {
    const field = through === null ? undefined : sheet.fields[through];
    return putOrRemove(sheet, 'freeze', field ? { id: 'freeze', kind: 'freeze', through: field.id } : null);
  },
  says: ({ through }) => (through === null ? 'let all fields scroll' : 'keep fields in view'),
};

/** Shades every other record, or none. */
export const bandRecords: Editor<{ readonly on: boolean }> = {
  operations: (sheet, { on }) => putOrRemove(sheet, 'bands', on ? { id: 'bands', kind: 'bands' } : null),
  says: ({ on }) => (on ? 'shade every other record' : 'shade no records'),
};

function putOrRemove(sheet: Sheet, id: string, part: SheetPart | null): Operation[] {
  if (part) return [{ kind: 'put-parts', parts: [part] }];
  return sheet.parts.get(id) ? [{ kind: 'remove-parts', parts: [id] }] : [];
}
