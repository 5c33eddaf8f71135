import { itemAt } from '../../values/item-at';
import { nestProperties } from '../../looks/look';
import { columnLetters, type CellRange } from '../../sheet/address';
import type { Sheet } from '../../sheet/sheet';
import { shownAt } from '../../sheet/shown-cell';
import type { CellValue } from '../../values/cell-value';
import { isoFromSerial } from '../../values/dates/date-serial';
import { RECORDS_FORMAT } from './json-records';
import type { ExportedFile } from '../exported-file';
import { wholeArea, type ExportSource } from '../export-source';

/**
 * A value in JSON: numbers, texts and logicals are its own, dates are ISO 8601 text, a blank is null and an error its
 * word.
 */
export function jsonValue(value: CellValue): string | number | boolean | null {
  switch (value.kind) {
    case 'blank':
      return null;
    case 'number':
      return value.number;
    case 'text':
      return value.text;
    case 'logical':
      return value.logical;
    case 'date':
      return isoFromSerial(value.serial);
    case 'error':
      return value.error;
  }
}

/**
 * A record with its shown values and looks, by label; blank ones are left out of `shown`, cells without a look out of
 * `looks`.
 */
export interface ToldRecord {
  /** The row, counted from 1. */
  readonly row: number;
  readonly values: Readonly<Record<string, string | number | boolean | null>>;
  readonly shown: Readonly<Record<string, string>>;
  readonly looks: Readonly<Record<string, { readonly look: object; readonly rules: readonly string[] }>>;
}

/** Whether a row is a record that holds something: blank ones are there to type in. */
export const isFilledRecord = (sheet: Sheet, slot: number): boolean =>
  sheet.roleAt(slot) === 'record' && sheet.columns.some((store) => store.inputCodeAt(slot) !== 0);

/** A field as records name it: the beginning of its member in JSON. */
export interface ToldField {
  readonly key: string;
  readonly column: number;
}

/** The fields of an area by label; of two that are called the same, the first. */
export function toldFields(sheet: Sheet, { left, right }: Pick<CellRange, 'left' | 'right'>): ToldField[] {
  const fields = new Map<string, ToldField>();
  for (let column = left; column <= right; column++) {
    const label = sheet.labelOf(column) ?? columnLetters(column);
    if (!fields.has(label)) fields.set(label, { key: `${JSON.stringify(label)}:`, column });
  }
  return [...fields.values()];
}

/** A record of a sheet, with its looks and the names of the rules that gave them. */
export const toldRecord = (source: ExportSource, fields: readonly ToldField[], position: number): ToldRecord =>
  JSON.parse(recordText(source, fields, position)) as ToldRecord; // what recordText writes

/**
 * The same in JSON, without objects in between: a file has hundreds of thousands of records. Labels are anybody's, also
 * one such as `__proto__`; in JSON they are all alike.
 */
function recordText(
  { sheet, resolver, running }: ExportSource,
  fields: readonly ToldField[],
  position: number,
): string {
  const slot = sheet.slotAt(position);
  let values = '';
  let shown = '';
  let looks = '';
  for (const { key, column } of fields) {
    const value = jsonValue(sheet.column(column).valueAt(slot));
    values += `${values === '' ? '' : ','}${key}${JSON.stringify(value)}`;
    const text = shownAt(sheet, column, slot);
    if (text !== '') shown += `${shown === '' ? '' : ','}${key}${JSON.stringify(text)}`;
    const { properties, rules } = resolver.resolve(column, slot);
    if (properties.size)
      looks += `${looks === '' ? '' : ','}${key}${JSON.stringify({ look: nestProperties(properties), rules: rules.map((at) => itemAt(running, at).rule.name) })}`;
  }
  return `{"row":${position + 1},"values":{${values}},"shown":{${shown}},"looks":{${looks}}}`;
}

/**
 * The records of a sheet as JSON: `{ "format": "auxesis-records", "version": 1, "name", "fields", "records" }`, one
 * record a line.
 */
export function recordsOfSheet(source: ExportSource): ExportedFile {
  const { name, sheet, area, running } = source;
  const part = area ?? wholeArea(sheet);
  const { left, top, right, bottom } = part;
  const told = toldFields(sheet, part);
  const labels = sheet.fields.map((_, column) => sheet.labelOf(column) ?? columnLetters(column));
  const fields = sheet.fields
    .slice(left, right + 1)
    .map(({ unit, format }, at) => ({ label: itemAt(labels, left + at), unit, format }));
  const double = labels.find((label, at) => labels.indexOf(label) !== at);
  function* parts(): Generator<string> {
    yield `${JSON.stringify({ format: RECORDS_FORMAT, version: 1, name, fields }).slice(0, -1)},"records":[`;
    let isFirst = true;
    for (let position = top; position <= bottom; position++) {
      if (!isFilledRecord(sheet, sheet.slotAt(position))) continue;
      yield `${isFirst ? '\n' : ',\n'}${recordText(source, told, position)}`;
      isFirst = false;
    }
    yield '\n]}\n';
  }
  return {
    parts: parts(),
    report: {
      rules: running.map(({ rule }) => ({
        name: rule.name,
        as: 'nothing',
        note: 'its name and its looks of now are there',
      })),
      notes: [
        'Formulas are there as what they give; titles, totals and notes are left out',
        ...(double === undefined ? [] : [`Two fields are called “${double}”: the second is left out`]),
      ],
    },
  };
}
