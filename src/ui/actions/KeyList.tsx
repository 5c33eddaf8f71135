import { Kbd } from '@mantine/core';
import { useTranslations } from 'use-intl';
import type { Key } from '../../texts/texts';
import classes from './KeyList.module.css';

const KEYS: readonly (readonly [readonly string[], Key<'actions'>])[] = [
  [['arrows', 'tab'], 'nextCellShiftArrows'],
  [['ctrl', 'arrows'], 'edgeDataShiftSelecting'],
  [['home', 'end'], 'firstLastFieldCtrl'],
  [['ctrl', 'A'], 'selectEverythingCtrlHeld'],
  [['enter', 'F2'], 'editCellTypingReplaces'],
  [['='], 'beginFormulaCellsClicked'],
  [['tab'], 'formulaTakeCompletionOffered'],
  [['F8'], 'formulaFixReferenceBoth'],
  [['delete'], 'clearSelectedCells'],
  [['ctrl', 'C', 'X', 'V'], 'copyCutPaste'],
  [['alt', 'arrows'], 'moveSelectedRowsOr'],
  [['alt', 'shift', 'down'], 'fillSelectionFromIts'],
  [['ctrl', 'B', 'I', 'U'], 'boldItalicUnderline'],
  [['ctrl', 'F'], 'findReplace'],
  [['ctrl', 'Z'], 'undoShiftOrCtrl'],
  [['ctrl', 'K'], 'searchActionsRulesFields'],
  [['alt', 'R'], 'makeRuleOverSelected'],
  [['alt', 'L'], 'ruleFromExamplesShift'],
  [['ctrl', 'enter'], 'saveRuleShiftAlso'],
  [['escape'], 'closeWhatOpen'],
  [['F1'], 'helpWhatYou'],
];

/** Keys that languages name differently; others are as they are printed on the key. */
const NAMED = ['alt', 'arrows', 'ctrl', 'delete', 'down', 'end', 'enter', 'escape', 'home', 'shift', 'tab'] as const;

const isNamed = (key: string): key is (typeof NAMED)[number] => NAMED.some((name) => name === key);

/** The shortcuts of the sheet. */
export function KeyList() {
  const t = useTranslations('actions');
  return (
    <dl className={classes.keys}>
      {KEYS.map(([keys, says]) => (
        <div key={says} style={{ display: 'contents' }}>
          <dt>
            {keys.map((key) => (
              <Kbd key={key} mx={2}>
                {isNamed(key) ? t(key) : key}
              </Kbd>
            ))}
          </dt>
          <dd>{t(says)}</dd>
        </div>
      ))}
    </dl>
  );
}
