import {
  pickedCompletion,
  type Completion,
  type CompletionContext,
  type CompletionResult,
} from '@codemirror/autocomplete';
import type { EditorView } from '@codemirror/view';
import { FUNCTIONS, signatureOf } from '../../core/formula/functions/function-table';
import { wantsReference, wordBefore, type Surroundings } from '../../core/formula/syntax/typed-formula';
import { parseAddress } from '../../core/sheet/address';

const MAX_SHOWN = 60;

/**
 * Completes functions, labels of fields and names; those that begin with the typed text come before those that contain
 * it.
 */
export function completeFormula(
  surroundings: () => Surroundings,
): (context: CompletionContext) => CompletionResult | null {
  const complete = ({ state, pos, explicit }: CompletionContext): CompletionResult | null => {
    const text = state.doc.toString();
    const found = wordBefore(text, pos);
    // Where no reference can stand, nothing is offered, asked for or not.
    if (!found && !(explicit && wantsReference(text, pos))) return null;
    const { from, word, isQuoted } = found ?? { from: pos, word: '', isQuoted: false };
    const { labels, names } = surroundings();
    const options = [
      ...(isQuoted
        ? []
        : names.map(({ name, refersTo }): Completion => ({ label: name, detail: refersTo.slice(1), type: 'name' }))),
      ...labels.map((label): Completion => ({ label, detail: 'field', type: 'field', apply: insertLabel })),
      ...(isQuoted ? [] : FUNCTION_OPTIONS),
    ];
    const wanted = word.toLowerCase();
    const rank = ({ label }: Completion): number => (label.toLowerCase().startsWith(wanted) ? 0 : 1);
    const fitting = options.filter(
      ({ label }) => label.toLowerCase().includes(wanted) && label.toLowerCase() !== wanted,
    );
    const shown = fitting.toSorted((a, b) => rank(a) - rank(b)).slice(0, MAX_SHOWN);
    if (shown.length === 0) return null;
    // Follows the text at once: keys would pass by an open list while another was on its way.
    return { from, options: shown, filter: false, update: (...[, , , context]) => complete(context) };
  };
  return complete;
}

/** Functions that most formulas are made of, in common practice. */
const COMMON: ReadonlySet<string> = new Set(
  'SUM IF AVERAGE COUNT COUNTA COUNTIF SUMIF MIN MAX AND OR NOT ROUND ABS TODAY DATE YEAR MONTH LEN LEFT RIGHT MID'.split(
    ' ',
  ),
);

/** The common ones first, the shortest of them first. */
const byUse = ({ name: a }: { readonly name: string }, { name: b }: { readonly name: string }): number =>
  Number(COMMON.has(b)) - Number(COMMON.has(a)) || a.length - b.length || (a < b ? -1 : 1);

const FUNCTION_OPTIONS: readonly Completion[] = [...FUNCTIONS.values()].toSorted(byUse).map((spec) => ({
  label: spec.name,
  detail: signatureOf(spec).slice(spec.name.length),
  info: spec.says,
  type: 'function',
  apply: callFunction,
}));

type Inserting = [view: EditorView, completion: Completion, from: number, to: number];

/** Writes the call with its brackets, and goes in between them. */
function callFunction(...[view, completion, from, to]: Inserting): void {
  const isCalled = view.state.sliceDoc(to, to + 1) === '(';
  view.dispatch({
    changes: { from, to, insert: completion.label + (isCalled ? '' : '()') },
    selection: { anchor: from + completion.label.length + 1 },
    annotations: pickedCompletion.of(completion),
    userEvent: 'input.complete',
  });
}

/** Writes a label; a quote that closed itself behind what was typed is not doubled. */
function insertLabel(...[view, completion, from, to]: Inserting): void {
  const closes = view.state.sliceDoc(from, from + 1) === "'" && view.state.sliceDoc(to, to + 1) === "'";
  const insert = writeLabel(completion.label);
  view.dispatch({
    changes: { from, to: closes ? to + 1 : to, insert },
    selection: { anchor: from + insert.length },
    annotations: pickedCompletion.of(completion),
    userEvent: 'input.complete',
  });
}

/**
 * A label as a formula reads it: in quotes where it is more than a word, or could be taken for an address or a
 * function.
 */
function writeLabel(label: string): string {
  const isPlain =
    /^[\p{L}_][\p{L}\p{N}_]*$/u.test(label) && !parseAddress(label) && !FUNCTIONS.has(label.toUpperCase());
  return isPlain ? label : `'${label.replaceAll("'", "''")}'`;
}
