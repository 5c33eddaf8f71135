import { nanoid } from 'nanoid';
import { parseMessage } from '../../protocol/parse-message';
import { textOfInput } from '../../core/sheet/label-from-input';
import { itemAt } from '../../core/values/item-at';
import { proposeKey } from '../../core/edit/propose-key';
import { refreshFrom, sharedFields, type NewerRecords, type RefreshHow } from '../../core/edit/refresh';
import { BadFile } from '../../core/exchange/bad-file';
import type { Operation, StoredRow } from '../../core/sheet/change';
import { compareKeys } from '../../core/sheet/compare-keys';
import type { Field } from '../../core/sheet/field';
import type { Sheet } from '../../core/sheet/sheet';
import type { NewerFile, RefreshPreview } from '../../protocol/engine-messages';
import { loadLater } from '../load-later';

/** Changed cells that are listed one by one. */
const MAX_TOLD = 200;

/** Reads a newer file of a sheet's records. Fails in words for the person who brought it. */
async function readNewer(file: File): Promise<NewerRecords> {
  try {
    let fields: readonly Field[] = [];
    let labels: string[] = [];
    const records: string[][] = [];
    const { openFile } = await loadLater(() => import('../files/open-file'));
    const opened = await openFile(file, () => {});
    for await (const lines of opened.lines('newer', () => {}))
      for (const line of lines.split('\n')) {
        if (line === '') continue;
        const { fields: found, row } = parseMessage<{
          readonly fields?: readonly Field[];
          readonly row?: StoredRow;
        }>(line);
        if (found) fields = [...found].sort((one, other) => compareKeys(one.key, other.key));
        const texts = row && fields.map(({ id }) => row.cells[id] ?? '');
        if (texts && row.role === 'header') labels = texts.map(textOfInput);
        if (texts && row.role === 'record') records.push(texts);
      }
    if (labels.length === 0) throw new BadFile('no row of labels was found: its fields cannot be met with those here');
    return { labels, records };
  } catch (error) {
    throw error instanceof BadFile ? new Error(error.told, { cause: error }) : error;
  }
}

/** The common parts of a newer file and a sheet. */
function meetNewer(sheet: Sheet, { labels, records }: NewerRecords): NewerFile {
  const fields = sharedFields(sheet, labels);
  const shared = fields.flatMap((id, at) => (id === undefined ? [] : { id, label: itemAt(labels, at), at }));
  return {
    records: records.length,
    shared: shared.map(({ id, label }) => ({ id, label })),
    unknown: labels.filter((label, at) => label.trim() !== '' && fields[at] === undefined),
    key: proposeKey(
      records,
      shared.map(({ at }) => at),
    ).flatMap((at) => fields[at] ?? []),
  };
}

/** The newer file of a sheet that was read last. */
export class HeldNewer {
  private records: NewerRecords | null = null;

  /** Reads a file, and reports what it has in common with a sheet. Fails in words for the person. */
  async read(file: File, sheet: Sheet): Promise<NewerFile> {
    this.records = await readNewer(file);
    return meetNewer(sheet, this.records);
  }

  /** The effect of refreshing, with its operations. */
  plan(sheet: Sheet, how: RefreshHow): { readonly preview: RefreshPreview; readonly operations: readonly Operation[] } {
    if (!this.records) throw new Error('no newer file is open');
    const { operations, changed, ...counts } = refreshFrom(sheet, this.records, { ...how, newId: () => nanoid(10) });
    return { operations, preview: { ...counts, changed: changed.length, cells: changed.slice(0, MAX_TOLD) } };
  }
}
