import type { Sql } from '../database';
import { processWide } from '../process-wide';
import { writeChanges, type WrittenChanges } from '../sql/change';

/** Sheets that are written by one statement at most, and changes. */
const MOST_SHEETS = 64;
const MOST_CHANGES = 512;
/** Statements under way at once: while one is being made durable, the next one is worked out. */
const AT_ONCE = 2;

interface Waiting {
  readonly written: WrittenChanges;
  readonly resolve: (isWritten: boolean) => void;
  readonly reject: (error: unknown) => void;
}

/** Writes changes of many sheets: those that wait go together, so that they are made durable together. */
class ChangeWriter {
  private readonly waiting: Waiting[] = [];
  private underWay = 0;

  constructor(private readonly sql: Sql) {}

  /** True once they are durable; false, and nothing is done, where the sheet is elsewhere by now, or is locked. */
  write(written: WrittenChanges): Promise<boolean> {
    return new Promise((resolve, reject) => {
      this.waiting.push({ written, resolve, reject });
      if (this.underWay < AT_ONCE) void this.writeOn();
    });
  }

  private async writeOn(): Promise<void> {
    this.underWay++;
    while (this.waiting.length > 0) {
      const group = this.waiting.splice(0, this.together());
      try {
        const done = await writeChanges(
          this.sql,
          group.map(({ written }) => written),
        );
        for (const { written, resolve } of group) resolve(done.has(written.sheet));
      } catch (error) {
        for (const { reject } of group) reject(error);
      }
    }
    this.underWay--;
  }

  private together(): number {
    let changes = 0;
    const end = this.waiting.findIndex(
      ({ written: { log } }, at) => (changes += log.length) > MOST_CHANGES || at === MOST_SHEETS,
    );
    return end < 0 ? this.waiting.length : Math.max(1, end);
  }
}

/** The one of a pool of connections. */
export function changeWriter(sql: Sql): ChangeWriter {
  const writers = processWide('change-writers', () => new WeakMap<Sql, ChangeWriter>());
  let writer = writers.get(sql);
  if (!writer) writers.set(sql, (writer = new ChangeWriter(sql)));
  return writer;
}
