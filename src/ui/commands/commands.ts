import { TOUR } from '../help/tour-name';
import type { Texts } from '../../texts/texts';
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
export function actionCommands(session: Session, t: Texts<'commands'>): readonly Command[] {
  const { actions, rules } = session;
  const last = (): number => (session.get().frame?.fields.length ?? 1) - 1;
  const savedRules = () => session.get().legend.flatMap(({ id, isDraft }) => (isDraft ? [] : [id]));
  const open = (panel: SessionState['panel']) => () => session.openPanel(panel);
  return inGroup(t('actions'), [
    { title: t('newRule'), also: t('conditionalFormat'), run: open('new-rule') },
    { title: t('ruleFromExamples'), also: t('likeTheseCells'), run: () => void session.examples.begin() },
    { title: t('selectAllRules'), run: () => rules.chooseRules(savedRules()) },
    { title: t('copyAllRulesSelected'), run: () => rules.carryToSelection(savedRules()) },
    { title: t('deleteRulesSelection'), run: () => void rules.removeTouching() },
    { title: t('useARuleSet'), run: () => session.openDialog({ what: 'use-set', rules: [] }) },
    { title: t('previewLegendAsReader'), run: () => session.readLegend(true) },
    { title: t('findAndReplace'), run: open('find') },
    { title: t('styleSelectedCells'), also: t('formatFillFontBorder'), run: open('style') },
    { title: t('wrapText'), run: () => void actions.wrap(true) },
    { title: t('allowedValuesField'), also: t('listChoices'), run: open('values') },
    { title: t('fitAllFieldsContent'), also: t('columnWidth'), run: () => void actions.fitFields(0, last()) },
    { title: t('totalsRowAllFields'), also: t('sumAverage'), run: () => void actions.edit({ do: 'add-totals' }) },
    { title: t('addRecordEnd'), also: t('row'), run: () => void actions.addRecord() },
    { title: t('removeDuplicateRecords'), run: () => void actions.removeDuplicates() },
    {
      title: t('stripeRecords'),
      also: t('shade'),
      run: () => void actions.edit({ do: 'band-records', on: true }),
    },
    { title: t('exportUpdateFromFile'), also: t('downloadImport'), run: open('files') },
    { title: t('share'), also: t('linkPeopleInvite'), run: open('share') },
    { title: t('help'), also: t('howTasksF1'), run: () => session.openHelp('') },
    { title: t('takeTourSheet'), run: () => session.openHelp(TOUR) },
    { title: t('showShortcuts'), also: t('keysHelp'), run: () => session.openHelp('keys') },
    { title: t('undo'), run: () => session.undo() },
    { title: t('redo'), run: () => session.redo() },
  ]);
}

/** The rules and fields of the open sheet: a rule is opened, a field gone to. */
export const placeCommands = (
  session: Session,
  { legend, frame }: Pick<SessionState, 'legend' | 'frame'>,
  t: Texts<'commands'>,
): readonly Command[] => [
  ...inGroup(
    t('rules'),
    legend.map(({ id, rule, sentence }) => ({
      title: rule.name,
      also: sentence,
      run: () => session.rules.openRule(id, true),
    })),
  ),
  ...inGroup(
    t('fields'),
    (frame?.fields ?? []).map(({ label }) => ({ title: label, run: () => session.actions.jump(label) })),
  ),
];

export const inGroup = (group: string, commands: readonly CommandOf[]): Command[] =>
  commands.map((command, at) => ({ ...command, group, id: `${group} ${at}` }));
