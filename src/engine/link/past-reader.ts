import { readMessage } from '../../protocol/parse-message';
import { sheetUrl } from '../../protocol/sheet-url';
import type { SheetId } from '../../core/sheet/ids';
import type { SheetPast } from '../../protocol/recorded-change';
import type { Replica } from '../replica/replica';

const RETRY_MS = 5000;

/** Asks the server for what happened before a sheet was opened, once a rule wants to know. */
export class PastReader {
  private state: 'unasked' | 'asked' = 'unasked';

  constructor(
    private readonly sheet: SheetId,
    private readonly read: (past: SheetPast) => void,
  ) {}

  /** To be called when the rules may have changed. */
  follow(replica: Replica): void {
    if (replica.evaluation.needsHistory) this.want(replica);
  }

  /** Asks, where it has not yet. */
  want({ openedAt }: Replica): void {
    if (this.state === 'asked') return;
    this.state = 'asked';
    void this.ask(openedAt);
  }

  private async ask(until: number): Promise<void> {
    try {
      const response = await fetch(sheetUrl(this.sheet, `past?until=${until}`));
      if (!response.ok) throw new Error(`status ${response.status}`);
      this.read(await readMessage<SheetPast>(response));
    } catch {
      setTimeout(() => void this.ask(until), RETRY_MS);
    }
  }
}
