import { Kbd, Modal } from '@mantine/core';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './Keys.module.css';

const KEYS: readonly (readonly [readonly string[], string])[] = [
  [['Arrows', 'Tab'], 'To the next cell; with Shift, the arrows select'],
  [['Ctrl', 'Arrows'], 'To the edge of the data; with Shift, selecting'],
  [['Home', 'End'], 'To the first and last field; with Ctrl, of the sheet'],
  [['Ctrl', 'A'], 'Select everything; with Ctrl held, a click selects one range more'],
  [['Enter', 'F2'], 'Edit the cell; typing replaces what is there'],
  [['='], 'Begin a formula: cells that are clicked or reached by the arrows go into it'],
  [['Tab'], 'In a formula, take the completion that is offered'],
  [['F8'], 'In a formula, fix the reference: both, its row, its field, neither'],
  [['Delete'], 'Clear the selected cells'],
  [['Ctrl', 'C', 'X', 'V'], 'Copy, cut and paste'],
  [['Alt', 'Arrows'], 'Move the selected rows or fields by one'],
  [['Alt', 'Shift', 'Down'], 'Fill the selection from its first row; with Right, from its first field'],
  [['Ctrl', 'B', 'I', 'U'], 'Bold, italic, underline'],
  [['Ctrl', 'F'], 'Find and replace'],
  [['Ctrl', 'Z'], 'Undo; with Shift, or Ctrl and Y, redo'],
  [['Ctrl', 'K'], 'Search actions, rules, fields and sheets'],
  [['Alt', 'R'], 'Make a rule over the selected fields'],
  [['Ctrl', 'Enter'], 'Save the rule; with Shift, also start the next one on the same cells'],
  [['Escape'], 'Close what is open'],
  [['F1'], 'Show shortcuts'],
];

/** The shortcuts of the grid. */
export function Keys() {
  const session = useSession();
  const panel = useSessionState((state) => state.panel);
  return (
    <Modal opened={panel === 'keys'} onClose={() => session.openPanel(null)} title="Keys" size="lg">
      <dl className={classes.keys}>
        {KEYS.map(([keys, says]) => (
          <div key={says} style={{ display: 'contents' }}>
            <dt>
              {keys.map((key) => (
                <Kbd key={key} mx={2}>
                  {key}
                </Kbd>
              ))}
            </dt>
            <dd>{says}</dd>
          </div>
        ))}
      </dl>
    </Modal>
  );
}
