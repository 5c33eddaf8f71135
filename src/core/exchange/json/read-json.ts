import { messageOf } from '../../values/error-message';
import { BadFile } from '../bad-file';
import type { Table } from '../../values/table';
import { RECORDS_FORMAT, tableOfRecords } from './json-records';

/** Reads an array of objects, each a record (see json-records.ts). Throws a BadFile. */
export function jsonTable(text: string): Table {
  const parsed = recordsIn(parse(text, ''));
  if (!Array.isArray(parsed)) throw new BadFile('expected an array of objects, one a record');
  return tableOfRecords((parsed as unknown[]).map((record, at) => ({ record, place: `record ${at + 1}` })));
}

/** The values of a file of records that was exported here; anything else as it is. A rule file is recognised. */
function recordsIn(parsed: unknown): unknown {
  if (typeof parsed !== 'object' || parsed === null || !('format' in parsed)) return parsed;
  if (parsed.format === 'auxesis-rules')
    throw new BadFile('this is a rule file: open the sheet that it is for, and bring it in there under Files, Rules');
  if (parsed.format !== RECORDS_FORMAT || !('records' in parsed) || !Array.isArray(parsed.records)) return parsed;
  return parsed.records.map((record: unknown) =>
    typeof record === 'object' && record !== null && 'values' in record ? record.values : record,
  );
}

/** Reads JSON Lines: an object a line; blank lines are skipped. Throws a BadFile. */
export function jsonLinesTable(text: string): Table {
  return tableOfRecords(
    text.split(/\r?\n/).flatMap((line, at) => {
      const place = `line ${at + 1}`;
      return line.trim() === '' ? [] : { record: parse(line, place), place };
    }),
  );
}

function parse(text: string, place: string): unknown {
  try {
    return JSON.parse(text.replace(/^\ufeff/, '')) as unknown;
  } catch (error) {
    throw new BadFile(`not JSON: ${messageOf(error)}`, place);
  }
}
