import { columnLetters, parseAddress, type CellRange } from '../sheet/address';
import type { Operation } from '../sheet/change';
import { nameKey, type SheetPart } from '../sheet/sheet-part';
import type { Sheet } from '../sheet/sheet';
import { EditRefusal, type Editor } from './editor';

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

/** Gives cells a name that formulas and the address box know them by. */
export const nameCells: Editor<{ readonly name: string; readonly area: CellRange }> = {
  operations(_, { name, area: { left, top, right, bottom } }) {
    const trimmed = name.trim();
    if (!NAME.test(trimmed) || trimmed.length > 100)
      throw new EditRefusal(
        'A name begins with a letter and holds only letters, digits, points and low lines, such as “Limits” or “Dry_season”.',
      );
    if (parseAddress(trimmed))
      throw new EditRefusal(`“${trimmed}” is the address of a cell. Choose a name that is not.`);
    const corner = (column: number, position: number): string => `$${columnLetters(column)}$${position + 1}`;
    const first = corner(left, top);
    const refersTo = left === right && top === bottom ? `=${first}` : `=${first}:${corner(right, bottom)}`;
    return [{ kind: 'put-parts', parts: [{ id: nameKey(trimmed), kind: 'name', name: trimmed, refersTo }] }];
  },
  says: ({ name }) => `name cells “${name.trim()}”`,
};

export const removeName: Editor<{ readonly name: string }> = {
  operations: (sheet, { name }) => putOrRemove(sheet, nameKey(name), null),
  says: ({ name }) => `delete the name “${name}”`,
};

const NAME = /^\p{L}[\p{L}\p{N}._]*$/u;

function putOrRemove(sheet: Sheet, id: string, part: SheetPart | null): Operation[] {
  if (part) return [{ kind: 'put-parts', parts: [part] }];
  return sheet.parts.get(id) ? [{ kind: 'remove-parts', parts: [id] }] : [];
}
