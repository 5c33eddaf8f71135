import {
  acceptCompletion,
  completionStatus,
  selectedCompletionIndex,
  setSelectedCompletion,
} from '@codemirror/autocomplete';
import type { EditorView } from '@codemirror/view';
import { stepAnchors } from '../../core/formula/syntax/typed-formula';

/** Takes the completion that is chosen, or the first where none is. */
export function takeCompletion(view: EditorView): boolean {
  if (completionStatus(view.state) !== 'active') return false;
  if (selectedCompletionIndex(view.state) === null) view.dispatch({ effects: setSelectedCompletion(0) });
  return acceptCompletion(view);
}

/** Steps the reference at the caret through its anchors. */
export function stepAnchorsHere(view: EditorView): boolean {
  const step = stepAnchors(view.state.doc.toString(), view.state.selection.main.head);
  if (!step) return false;
  const { from, to, insert } = step;
  view.dispatch({ changes: { from, to, insert }, selection: { anchor: from + insert.length } });
  return true;
}
