import { autocompletion, closeBrackets } from '@codemirror/autocomplete';
import { history } from '@codemirror/commands';
import { bracketMatching } from '@codemirror/language';
import { EditorState, type Extension } from '@codemirror/state';
import { Decoration, EditorView, tooltips, ViewPlugin, type DecorationSet, type ViewUpdate } from '@codemirror/view';
import { isFormulaInput } from '../../core/values/is-formula-input';
import { parseFormula } from '../../core/formula/syntax/parse-formula';
import type { Surroundings } from '../../core/formula/syntax/typed-formula';
import { coloredReferences } from './colored-references';
import { completeFormula } from './complete-formula';
import { formulaTheme } from './formula-theme';
import { signatureHint } from './signature-hint';

/**
 * Extensions of every formula editor: completion, hints, references in the colours of their cells, mistakes underlined,
 * one line.
 */
export const formulaExtensions = (surroundings: () => Surroundings, label: string): Extension[] => [
  formulaTheme,
  autocompletion({
    override: [completeFormula(surroundings)],
    selectOnOpen: false,
    activateOnTypingDelay: 10,
    interactionDelay: 0,
    icons: false,
  }),
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
];

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
      wrong && wrong.from < text.length
        ? [Decoration.mark({ class: 'cm-mistake' }).range(wrong.from, Math.max(wrong.from + 1, wrong.to))]
        : [];
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
