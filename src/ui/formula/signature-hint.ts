import { StateField, type EditorState, type Extension } from '@codemirror/state';
import { showTooltip, type Tooltip } from '@codemirror/view';
import { callAround } from '../../core/formula/resolve/call-around';

/**
 * Over the call that is being typed: its arguments by name, the one that is next set bold, and what the function gives.
 */
export const signatureHint: Extension = StateField.define<Tooltip | null>({
  create: hintFor,
  update: (hint, { state, docChanged, selection }) => (docChanged || selection ? hintFor(state) : hint),
  provide: (field) => showTooltip.from(field),
});

function hintFor(state: EditorState): Tooltip | null {
  const { head } = state.selection.main;
  const call = callAround(state.doc.toString(), head);
  if (!call) return null;
  const { spec, argument } = call;
  const at = spec.parameters.at(-1)?.repeats ? Math.min(argument, spec.parameters.length - 1) : argument;
  return {
    pos: 0,
    above: true,
    create: () => {
      const dom = document.createElement('div');
      dom.className = 'cm-signature';
      dom.setAttribute('role', 'note');
      const line = dom.appendChild(document.createElement('div'));
      line.append(`${spec.name}(`);
      spec.parameters.forEach((parameter, index) => {
        const name = parameter.absent
          ? `[${parameter.name}]`
          : parameter.repeats
            ? `${parameter.name}...`
            : parameter.name;
        const word = document.createElement(index === at ? 'strong' : 'span');
        word.textContent = name;
        line.append(...(index ? ['; '] : []), word);
      });
      line.append(')');
      const says = dom.appendChild(document.createElement('div'));
      says.className = 'cm-signature-says';
      says.textContent = spec.says;
      return { dom };
    },
  };
}
