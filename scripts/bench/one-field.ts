import { newField } from '../../src/core/sheet/field';
import type { Rule } from '../../src/core/rules/shape/rule';
import type { When } from '../../src/core/rules/kinds/registry';
import { Sheet } from '../../src/core/sheet/sheet';

/** A sheet of some fields and as many records as there are rows of inputs. */
export function sheetOf(fields: readonly string[], count: number, inputsAt: (row: number) => readonly string[]): Sheet {
  const made = new Sheet(fields.map((id, at) => newField(id, `a${at}`)));
  made.reserve(count);
  for (let at = 0; at < count; at++) {
    const slot = made.appendRow({ id: `r${at}`, key: '', role: 'record' });
    inputsAt(at).forEach((input, column) => made.columns[column]!.set(slot, input));
  }
  return made;
}

/** A rule over one field, a new object each time so that it is compiled again. */
export const ruleOver = (field: string, when: When, id = 'r'): Rule => ({
  id,
  name: 'R',
  on: true,
  settles: false,
  reads: { fields: [field] },
  when,
  paints: 'cell',
});
