import type { Operation } from '../../core/sheet/change';

/** A change that was made, and the operations that take it back. */
export interface UndoStep {
  readonly changeId: string;
  readonly inverse: readonly Operation[];
  /** What it did, in a few words. */
  readonly says: string;
}

/** The undo and redo history of one person in a session. */
export class UndoStack {
  private done: UndoStep[] = [];
  private undone: UndoStep[] = [];

  /** Remembers a change that was just made. */
  made(step: UndoStep): void {
    this.done.push(step);
    this.undone = [];
  }

  /** The step that would be taken back or forward next. */
  top(direction: 'undo' | 'redo'): UndoStep | undefined {
    return (direction === 'undo' ? this.done : this.undone).at(-1);
  }

  /** Remembers that the next step was taken back or forward by a change of its own. */
  stepped(direction: 'undo' | 'redo', change: UndoStep): void {
    const [from, to] = direction === 'undo' ? [this.done, this.undone] : [this.undone, this.done];
    from.pop();
    to.push(change);
  }

  /** Forgets a change that came to nothing. */
  forget(changeId: string): void {
    this.done = this.done.filter((step) => step.changeId !== changeId);
    this.undone = this.undone.filter((step) => step.changeId !== changeId);
  }

  /** The next undo and redo; null where there is none. */
  get next(): { undo: string | null; redo: string | null } {
    return { undo: this.done.at(-1)?.says ?? null, redo: this.undone.at(-1)?.says ?? null };
  }
}
