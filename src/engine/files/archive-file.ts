import { inDigits } from '../../core/values/counted';
import { labelFromInput } from '../../core/sheet/label-from-input';
import { BadFile } from '../../core/exchange/bad-file';
import { headLine, type ArchivedHead } from '../../core/exchange/archive/archive-lines';
import { LIMITS } from '../../core/exchange/limits';
import { ruleSentence } from '../../core/rules/shape/sentence-words';
import type { StoredRow } from '../../core/sheet/change';
import { readArchiveLine, readHeadLine } from '../../protocol/archive-schema';
import type { FilePreview } from '../../protocol/import-messages';
import type { ImportFile, Progress } from './import-file';

const HEAD_ROWS = 60;

/** A sheet that was taken out whole: it comes back with its rules, its formatting and its history. */
export class ArchiveFile implements ImportFile {
  private head!: ArchivedHead;
  private readonly rows: StoredRow[] = [];
  private rowCount = 0;
  private changes = 0;

  private constructor(private readonly file: File) {}

  static async open(file: File, progress: Progress): Promise<ArchiveFile> {
    const opened = new ArchiveFile(file);
    let number = 0;
    let isWhole = false;
    for await (const line of opened.textLines(progress)) {
      number++;
      if (number === 1) {
        opened.head = readHeadLine(line);
        continue;
      }
      // Each is checked when it is brought in; here it is only looked at.
      if (line.startsWith('{"row"')) {
        if (opened.rows.length < HEAD_ROWS) opened.rows.push(readArchiveLine(line, number).row!);
        opened.rowCount++;
      } else if (line.startsWith('{"change"')) opened.changes++;
      else isWhole = readArchiveLine(line, number).end !== undefined;
    }
    if (number === 0) throw new BadFile('there is nothing in it');
    if (!isWhole) throw new BadFile('the archive ends before the sheet does: it was cut off');
    return opened;
  }

  private async *textLines(progress: Progress): AsyncGenerator<string> {
    const decoder = new TextDecoder();
    let rest = '';
    let passed = 0;
    const reader = this.file.stream().pipeThrough(new DecompressionStream('gzip')).getReader();
    try {
      for (let next = await reader.read(); !next.done; next = await reader.read()) {
        passed += next.value.length;
        if (passed > LIMITS.unpackedBytes * 4)
          throw new BadFile(`unpacked, it comes to more than ${inDigits(LIMITS.unpackedBytes * 4)} bytes`);
        const lines = (rest + decoder.decode(next.value, { stream: true })).split('\n');
        rest = lines.pop()!;
        if (rest.length > LIMITS.line) throw new BadFile(`a line has more than ${inDigits(LIMITS.line)} characters`);
        yield* lines;
        progress(0.5);
      }
      if (rest) yield rest;
    } catch (error) {
      if (error instanceof BadFile) throw error;
      throw new BadFile('it cannot be unpacked: it is cut off or damaged');
    } finally {
      await reader.cancel().catch(() => {});
    }
  }

  async change(): Promise<void> {
    throw new BadFile('an archive is taken as it is');
  }

  preview(): FilePreview {
    const { name, fields, rules } = this.head;
    const ordered = [...fields].sort((one, other) => (one.key < other.key ? -1 : 1));
    const header = this.rows.findIndex(({ role }) => role === 'header');
    const labelOf = (id: string, column: number) => labelFromInput(this.rows[header]?.cells[id], column);
    const shown = ordered.map((field, column) => ({ ...field, label: labelOf(field.id, column) }));
    return {
      format: `Archive${this.changes ? ` with ${inDigits(this.changes)} changes of history` : ''}`,
      sheets: [name],
      sheet: 0,
      name,
      rowCount: this.rowCount,
      head: this.rows.map(({ cells }) => ordered.map(({ id }) => cells[id] ?? '')),
      fields: shown.map(({ label }) => ({ label, as: 'values', kind: 'as it was', why: 'with its formatting' })),
      reading: null,
      header: header < 0 ? null : header,
      form: null,
      rules: rules.map(({ rule }) => ({ name: rule.name, sentence: ruleSentence(shown, rule) })),
      losses: [],
    };
  }

  async *lines(name: string, progress: Progress): AsyncGenerator<string> {
    let isFirst = true;
    for await (const text of this.textLines(progress)) {
      yield isFirst ? headLine({ ...readHeadLine(text), name }) : `${text}\n`;
      isFirst = false;
    }
  }
}
