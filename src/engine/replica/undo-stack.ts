import type { Operation } from '../../core/sheet/change';

/** A change and its inverse. */
export interface UndoStep {
  readonly changeId: string;
  readonly inverse: readonly Operation[];
  /** Its effect, in a few words. */
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

  /** The next step of undo or redo. */
  top(direction: 'undo' | 'redo'): UndoStep | undefined {
    return (direction === 'undo' ? this.done : this.undone).at(-1);
  }

  /** Notes that the next step was undone or redone by a change of its own. */
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
