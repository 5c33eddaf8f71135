import { columnLetters } from '../../sheet/address';
import type { Sheet } from '../../sheet/sheet';
import { fieldFormat } from '../../sheet/shown-cell';
import type { NamedField } from './sentence-words';

/** The fields of a sheet as sentences name them: by the text of the header, or by their letters where it is blank. */
export const namedFields = (sheet: Sheet): NamedField[] =>
  sheet.fields.map(({ id, unit }, column) => ({
    id,
    format: fieldFormat(sheet, column),
    unit,
    label: sheet.labelOf(column) ?? columnLetters(column),
  }));
