import type { Operation } from '../core/sheet/change';

/** A change that was made, and the operations that take it back. */
export interface Step {
  readonly changeId: string;
  readonly inverse: readonly Operation[];
  /** What it did, in a few words. */
  readonly says: string;
}

/** What one person can take back and bring back in a session. */
export class UndoStack {
  private done: Step[] = [];
  private undone: Step[] = [];

  /** Remembers a change that was just made. */
  made(step: Step): void {
    this.done.push(step);
    this.undone = [];
  }

  /** Takes the next step back or forward: `run` makes a change of its operations. Returns false where there is none. */
  step(direction: 'undo' | 'redo', run: (operations: readonly Operation[], says: string) => Step): boolean {
    const [from, to] = direction === 'undo' ? [this.done, this.undone] : [this.undone, this.done];
    const step = from.pop();
    if (!step) return false;
    to.push(run(step.inverse, step.says));
    return true;
  }

  /** Forgets a change that came to nothing. */
  forget(changeId: string): void {
    this.done = this.done.filter((step) => step.changeId !== changeId);
    this.undone = this.undone.filter((step) => step.changeId !== changeId);
  }

  /** What would be taken back and brought back next; null where there is nothing. */
  get next(): { undo: string | null; redo: string | null } {
    return { undo: this.done.at(-1)?.says ?? null, redo: this.undone.at(-1)?.says ?? null };
  }
}
