import { CompletionContext } from '@codemirror/autocomplete';
import { EditorState } from '@codemirror/state';
import { expect, test } from 'vitest';
import { completeFormula } from './complete-formula';

const complete = completeFormula(() => ({ labels: ['Station', 'Turbidity'], names: [], rowCount: 20, firstRecord: 1 }));

/** The first two completions that somebody who asks for them gets at the end of a formula. */
const asked = (text: string): readonly string[] | undefined =>
  complete(new CompletionContext(EditorState.create({ doc: text }), text.length, true))
    ?.options.slice(0, 2)
    .map(({ label }) => label);

test.each([
  ['=', ['Station', 'Turbidity']],
  ['=B2+', ['Station', 'Turbidity']],
  ['=SUM(', ['Station', 'Turbidity']],
  ['=turb', ['Turbidity']],
  ['=su', ['SUM', 'SUMIF']],
  ['=cou', ['COUNT', 'COUNTA']],
  ['=tru', ['TRUE', 'TRUNC']],
  ['=SUM(B2:B3)', undefined],
  ["='Turbidity'", undefined],
  ['B2+', undefined],
])('what is offered after %s', (text, expected) => {
  expect(asked(text)).toEqual(expected);
});
