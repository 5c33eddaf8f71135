import type { Session } from '../sheet/session';
import type { SessionState } from '../sheet/session-state';

/** Something that can be done or gone to, by its words. */
export interface Command {
  readonly id: string;
  readonly group: string;
  readonly title: string;
  /** Other words that it is looked for by. */
  readonly also?: string;
  readonly run: () => void;
}

type CommandOf = Omit<Command, 'id' | 'group'>;

/** The actions on the open sheet. */
export function actionCommands(session: Session): readonly Command[] {
  const { actions, rules } = session;
  const last = (): number => (session.get().frame?.fields.length ?? 1) - 1;
  const savedRules = () => session.get().legend.flatMap(({ id, isDraft }) => (isDraft ? [] : [id]));
  const open = (panel: SessionState['panel']) => () => session.openPanel(panel);
  return inGroup('Actions', [
    { title: 'New rule', also: 'conditional format', run: open('new-rule') },
    { title: 'Select all rules', run: () => rules.chooseRules(savedRules()) },
    { title: 'Copy all rules to the selected cells', run: () => rules.carryToSelection(savedRules()) },
    { title: 'Delete the rules on the selection', run: () => void rules.removeTouching() },
    { title: 'Use a rule set', run: () => session.openDialog({ what: 'use-set', rules: [] }) },
    { title: 'Preview the legend as a reader', run: () => session.readLegend(true) },
    { title: 'Find and replace', run: open('find') },
    { title: 'Style of the selected cells', also: 'format fill font border', run: open('style') },
    { title: 'Wrap text', run: () => void actions.wrap(true) },
    { title: 'Allowed values of the field', also: 'list choices', run: open('values') },
    { title: 'Fit all fields to the content', also: 'column width', run: () => void actions.fitFields(0, last()) },
    { title: 'Totals row for all fields', also: 'sum average', run: () => void actions.edit({ do: 'add-totals' }) },
    { title: 'Add record at the end', also: 'row', run: () => void actions.addRecord() },
    { title: 'Remove duplicate records', run: () => void actions.removeDuplicates() },
    { title: 'Stripe records', also: 'shade', run: () => void actions.edit({ do: 'band-records', on: true }) },
    { title: 'Export or update from a file', also: 'download import', run: open('files') },
    { title: 'Share', also: 'link people invite', run: open('share') },
    { title: 'Show shortcuts', also: 'keys help', run: open('keys') },
    { title: 'Undo', run: () => session.undo() },
    { title: 'Redo', run: () => session.redo() },
  ]);
}

/** The rules and fields of the open sheet: a rule is opened, a field gone to. */
export const placeCommands = (session: Session, { legend, frame }: Pick<SessionState, 'legend' | 'frame'>) => [
  ...inGroup(
    'Rules',
    legend.map(({ id, rule, sentence }) => ({
      title: rule.name,
      also: sentence,
      run: () => session.rules.openRule(id, true),
    })),
  ),
  ...inGroup(
    'Fields',
    (frame?.fields ?? []).map(({ label }) => ({ title: label, run: () => session.actions.jump(label) })),
  ),
];

export const inGroup = (group: string, commands: readonly CommandOf[]): Command[] =>
  commands.map((command, at) => ({ ...command, group, id: `${group} ${at}` }));
