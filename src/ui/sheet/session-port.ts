import type { Texts } from '../../texts/texts';
import type { AnswerOf, Request } from '../../protocol/engine-messages';
import type { Selection } from '../../protocol/sheet-view';
import type { Editing, SessionState } from './session-state';

/** The parts of a session that its actions need: state, engine, and shared methods. */
export interface SessionPort {
  /** The texts of an open sheet in the reader's language. */
  readonly t: Texts<'sheet'>;
  get(): SessionState;
  set(change: Partial<SessionState>): void;
  ask<R extends Request>(request: R): Promise<AnswerOf<R['kind']>>;
  /** Selects cells. */
  select(selection: Selection): void;
  /** Selects cells and scrolls to them. */
  show(selection: Selection): void;
  /** Sets the typed text, with a reference in it that was pointed at on the grid. */
  point(editing: Editing): void;
  /** Shows a message. */
  showMessage(message: string): void;
  /** Shows what a paste had to leave out. */
  setPasteHint(pasted: SessionState['pasted']): void;
  /** Shows why some work was refused; gives undefined where it was. */
  withErrorMessage<T>(work: Promise<T>): Promise<T | undefined>;
  /** Renders nothing until the engine answers, or a moment has passed. */
  holdForEngine(): void;
  undo(): void;
}
