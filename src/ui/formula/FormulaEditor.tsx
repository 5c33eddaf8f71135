'use client';

import {
  acceptCompletion,
  autocompletion,
  completionStatus,
  closeBrackets,
  setSelectedCompletion,
  selectedCompletionIndex,
  startCompletion,
} from '@codemirror/autocomplete';
import { history, historyKeymap, standardKeymap } from '@codemirror/commands';
import { bracketMatching } from '@codemirror/language';
import { Annotation, EditorState, type Extension } from '@codemirror/state';
import {
  Decoration,
  EditorView,
  keymap,
  tooltips,
  ViewPlugin,
  type Command,
  type DecorationSet,
  type KeyBinding,
  type ViewUpdate,
} from '@codemirror/view';
import { useEffect, useLayoutEffect, useRef, type CSSProperties } from 'react';
import { isFormulaInput } from '../../core/formula/is-formula-input';
import { parseFormula } from '../../core/formula/parse-formula';
import { stepAnchors, type Surroundings } from '../../core/formula/typed-formula';
import type { Session } from '../sheet/session';
import { useSession, useSessionState } from '../sheet/use-session';
import { coloredReferences } from './colored-references';
import { completeFormula } from './complete-formula';
import { formulaTheme } from './formula-theme';
import { signatureHint } from './signature-hint';
import { surroundingsOf } from './surroundings';

interface Props {
  readonly label: string;
  readonly className: string | undefined;
  readonly style?: CSSProperties;
  /** What ends the typing. A key that gives false is the browser's. */
  readonly keys: { enter(step: 1 | -1): void; tab(step: 1 | -1): boolean; escape(): void };
}

/** Marks what the page itself puts into the editor. */
const fromOutside = Annotation.define<boolean>();

/** Where a formula is typed: with completion, hints, references in the colours of their cells, and what is wrong underlined. */
export default function FormulaEditor({ label, className, style, keys }: Props) {
  const session = useSession();
  const editing = useSessionState((state) => state.editing);
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView>(null);
  const newest = useRef(keys);

  useEffect(() => {
    newest.current = keys;
  });

  useLayoutEffect(() => {
    const { editing: begun } = session.get();
    const made = new EditorView({
      parent: host.current!,
      state: EditorState.create({
        doc: begun?.text ?? '',
        selection: { anchor: begun?.caret ?? begun?.text.length ?? 0 },
        extensions: extensionsFor(session, label, () => newest.current),
      }),
    });
    view.current = made;
    made.focus();
    // Whoever typed while the editor was fetched is helped from where they are.
    if (begun && begun.text.length > 1) startCompletion(made);
    return () => made.destroy();
  }, [session, label]);

  // What was put in by pointing.
  useLayoutEffect(() => {
    const { current } = view;
    if (!current || !editing || current.state.doc.toString() === editing.text) return;
    current.dispatch({
      changes: { from: 0, to: current.state.doc.length, insert: editing.text },
      selection: { anchor: editing.caret ?? editing.text.length },
      annotations: fromOutside.of(true),
      scrollIntoView: true,
    });
  }, [editing]);

  return <div ref={host} className={className} style={style} />;
}

function extensionsFor(session: Session, label: string, keys: () => Props['keys']): Extension[] {
  const surroundings = (): Surroundings => surroundingsOf(session.get().frame);
  // Once what was typed has been entered, keys are the grid's, though the editor may stand for a moment longer.
  const own = (key: string, run: Command, shift?: Command): KeyBinding => ({
    key,
    run: (target) => session.get().editing !== null && run(target),
    shift: shift ? (target) => session.get().editing !== null && shift(target) : undefined,
    stopPropagation: true,
  });
  const done = (act: () => void) => () => {
    act();
    return true;
  };
  const point = (key: string, columns: number, rows: number): KeyBinding =>
    own(
      key,
      () => session.pointing.step(columns, rows, false),
      () => session.pointing.step(columns, rows, true),
    );
  return [
    formulaTheme,
    autocompletion({
      override: [completeFormula(surroundings)],
      selectOnOpen: false,
      activateOnTypingDelay: 10,
      interactionDelay: 0,
      icons: false,
    }),
    keymap.of([
      own(
        'Tab',
        (target) => takeCompletion(target) || keys().tab(1),
        () => keys().tab(-1),
      ),
      own(
        'Enter',
        done(() => keys().enter(1)),
        done(() => keys().enter(-1)),
      ),
      own(
        'Escape',
        done(() => keys().escape()),
      ),
      own('F8', stepAnchorsHere),
      point('ArrowLeft', -1, 0),
      point('ArrowRight', 1, 0),
      point('ArrowUp', 0, -1),
      point('ArrowDown', 0, 1),
      ...historyKeymap,
      ...standardKeymap,
    ]),
    history(),
    closeBrackets(),
    bracketMatching(),
    signatureHint,
    marks(surroundings),
    // Within the page's main part, for those who go from landmark to landmark.
    tooltips({ position: 'fixed', parent: document.querySelector('main') ?? document.body }),
    EditorView.contentAttributes.of({ 'aria-label': label, 'aria-multiline': 'false', spellcheck: 'false' }),
    // A formula stands on one line.
    EditorState.transactionFilter.of((change) =>
      change.newDoc.lines > 1 ? [change, { changes: onOneLine(change.newDoc.toString()), sequential: true }] : change,
    ),
    EditorView.updateListener.of((update) => tellTyped(session, update)),
    EditorView.domEventHandlers({
      blur: () => {
        session.commit();
      },
    }),
  ];
}

function tellTyped(session: Session, update: ViewUpdate): void {
  if (!update.docChanged && !update.selectionSet) return;
  if (update.transactions.some((change) => change.annotation(fromOutside))) return;
  session.type(update.state.doc.toString(), update.state.selection.main.head);
}

/** Takes the completion that is chosen, or the first where none is. */
function takeCompletion(view: EditorView): boolean {
  if (completionStatus(view.state) !== 'active') return false;
  if (selectedCompletionIndex(view.state) === null) view.dispatch({ effects: setSelectedCompletion(0) });
  return acceptCompletion(view);
}

function stepAnchorsHere(view: EditorView): boolean {
  const step = stepAnchors(view.state.doc.toString(), view.state.selection.main.head);
  if (!step) return false;
  const { from, to, insert } = step;
  view.dispatch({ changes: { from, to, insert }, selection: { anchor: from + insert.length } });
  return true;
}

function onOneLine(text: string): { from: number; to: number; insert: string } {
  return { from: 0, to: text.length, insert: text.replaceAll('\n', ' ') };
}

/** Colours references, and underlines where the formula cannot be read; at its end nothing is wrong yet. */
function marks(surroundings: () => Surroundings): Extension {
  const build = ({ state }: EditorView): DecorationSet => {
    const text = state.doc.toString();
    const colored = coloredReferences(text, surroundings()).map(({ from, to, color }) =>
      Decoration.mark({ attributes: { style: `color: var(--references-${color})` } }).range(from, to),
    );
    const wrong = isFormulaInput(text) ? parseFormula(text).diagnostics[0] : undefined;
    const mistake =
      wrong && wrong.from < text.length ? [Decoration.mark({ class: 'cm-mistake' }).range(wrong.from, Math.max(wrong.from + 1, wrong.to))] : [];
    return Decoration.set([...colored, ...mistake], true);
  };
  return ViewPlugin.define(
    (view) => ({
      decorations: build(view),
      update(update: ViewUpdate) {
        if (update.docChanged) this.decorations = build(update.view);
      },
    }),
    { decorations: (plugin) => plugin.decorations },
  );
}
