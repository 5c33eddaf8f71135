'use client';

import { completionStatus } from '@codemirror/autocomplete';
import { historyKeymap, standardKeymap } from '@codemirror/commands';
import { EditorState } from '@codemirror/state';
import { EditorView, keymap, type KeyBinding } from '@codemirror/view';
import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import { useTranslations } from 'use-intl';
import type { Texts } from '../../texts/texts';
import { isFormulaInput } from '../../core/values/is-formula-input';
import { parseFormula } from '../../core/formula/syntax/parse-formula';
import { wantsReference } from '../../core/formula/syntax/typed-formula';
import { writeArea } from '../../core/sheet/address';
import { selectedArea } from '../grid/engine/selection';
import { useSession } from '../sheet/use-session';
import { formulaExtensions } from './formula-extensions';
import { stepAnchorsHere, takeCompletion } from './formula-commands';
import { surroundingsOf } from './surroundings';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly className: string | undefined;
  readonly onChange: (formula: string) => void;
}

/** Keys that take what is offered, or else do what they do elsewhere; F8 fixes the reference at the caret. */
const COMPLETION_KEYS: readonly KeyBinding[] = [
  { key: 'Tab', run: (view) => completionStatus(view.state) === 'active' && takeCompletion(view) },
  { key: 'Enter', run: (view) => completionStatus(view.state) !== 'active' || takeCompletion(view) },
  { key: 'F8', run: stepAnchorsHere },
];

/** Where the formula of a rule is typed: with everything that formulas in cells have, pointing at cells included. */
export default function RuleFormula({ label, value, className, onChange }: Props) {
  const t = useTranslations('formula');
  const session = useSession();
  const host = useRef<HTMLSpanElement>(null);
  const view = useRef<EditorView>(null);
  const newest = useRef({ value, onChange });
  const [mistake, setMistake] = useState<string | null>(null);
  useEffect(() => {
    newest.current = { value, onChange };
  });

  useLayoutEffect(() => {
    const tell = (text: string): void => {
      const wrong = mistakeIn(text, t);
      setMistake(wrong);
      if (wrong === null && text !== newest.current.value) newest.current.onChange(text);
    };
    const made = new EditorView({
      parent: host.current!,
      state: EditorState.create({
        doc: newest.current.value,
        extensions: [
          keymap.of([...COMPLETION_KEYS, ...historyKeymap, ...standardKeymap]),
          ...formulaExtensions(() => surroundingsOf(session.get().frame), label),
          EditorView.updateListener.of((update) => update.docChanged && tell(update.state.doc.toString())),
          EditorView.domEventHandlers({
            focus: () => session.pointing.want((selection) => pointInto(made, writeArea(selectedArea(selection)))),
            blur: () => session.pointing.want(null),
          }),
        ],
      }),
    });
    view.current = made;
    return () => made.destroy();
  }, [session, label, t]);

  // Changed elsewhere, by an undo or by others.
  useEffect(() => {
    const { current } = view;
    if (!current || current.hasFocus || current.state.doc.toString() === value) return;
    current.dispatch({ changes: { from: 0, to: current.state.doc.length, insert: value } });
  }, [value]);

  return (
    <>
      <span ref={host} className={className} />
      {mistake !== null && (
        <span className={className} role="alert" data-mistake>
          {mistake}
        </span>
      )}
    </>
  );
}

function mistakeIn(text: string, t: Texts<'formula'>): string | null {
  if (!isFormulaInput(text) || text.trim() === '=') return t('formulaBeginsGoes');
  const wrong = parseFormula(text).diagnostics[0];
  return wrong ? t('messageCharacterAt', { message: wrong.message, at: wrong.from + 1 }) : null;
}

/** Inserts a reference at the caret, or replaces the one that was pointed at just before. */
function pointInto(view: EditorView, reference: string): void {
  const { from, to, head } = view.state.selection.main;
  const text = view.state.doc.toString();
  if (from === to && !wantsReference(text, head)) return;
  view.dispatch({
    changes: { from, to, insert: reference },
    selection: { anchor: from, head: from + reference.length },
  });
}
