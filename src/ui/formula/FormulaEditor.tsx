'use client';

import { startCompletion } from '@codemirror/autocomplete';
import { historyKeymap, standardKeymap } from '@codemirror/commands';
import { Annotation, EditorState, type Extension } from '@codemirror/state';
import { EditorView, keymap, type Command, type KeyBinding, type ViewUpdate } from '@codemirror/view';
import { useEffect, useLayoutEffect, useRef, type CSSProperties } from 'react';
import type { Surroundings } from '../../core/formula/syntax/typed-formula';
import type { Session } from '../sheet/session';
import { useSession, useSessionState } from '../sheet/use-session';
import { stepAnchorsHere, takeCompletion } from './formula-commands';
import { formulaExtensions } from './formula-extensions';
import { surroundingsOf } from './surroundings';

interface Props {
  readonly label: string;
  readonly className: string | undefined;
  readonly style?: CSSProperties;
  /** Keys that end typing. A key that gives false is the browser's. */
  readonly keys: { enter(step: 1 | -1): void; tab(step: 1 | -1): boolean; escape(): void };
}

/** Marks what the page itself puts into the editor. */
const fromOutside = Annotation.define<boolean>();

/**
 * Where a formula is typed: with completion, hints, references in the colours of their cells, and what is wrong
 * underlined.
 */
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
    // Typing may have gone on while the editor was fetched: a half-typed word is completed from there. Elsewhere the
    // list would hold everything, and Tab would take the first of it.
    if (begun && HALF_TYPED.test(begun.text.slice(0, begun.caret))) startCompletion(made);
    return () => made.destroy();
  }, [session, label]);

  // The reference that was inserted by pointing.
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

/** A formula whose last sign is a letter. */
const HALF_TYPED = /^=.*\p{L}$/su;

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
    ...formulaExtensions(surroundings, label),
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
