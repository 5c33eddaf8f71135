import type { Operation } from '../core/sheet/change';

/** What one person can take back and bring back in a session. Each entry is the operations that do so. */
export class UndoStack {
  private readonly done: (readonly Operation[])[] = [];
  private undone: (readonly Operation[])[] = [];

  /** Remembers how to take back a change that was just made. */
  made(inverse: readonly Operation[]): void {
    this.done.push(inverse);
    this.undone = [];
  }

  /** Takes the next step back or forward; `run` applies its operations and gives their inverse. Returns false where there is none. */
  step(direction: 'undo' | 'redo', run: (operations: readonly Operation[]) => readonly Operation[]): boolean {
    const [from, to] = direction === 'undo' ? [this.done, this.undone] : [this.undone, this.done];
    const operations = from.pop();
    if (!operations) return false;
    to.push(run(operations));
    return true;
  }

  get depth(): { undo: number; redo: number } {
    return { undo: this.done.length, redo: this.undone.length };
  }
}
