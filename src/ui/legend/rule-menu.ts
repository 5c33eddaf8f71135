import {
  IconArrowBarRight,
  IconArrowDown,
  IconArrowsMove,
  IconArrowUp,
  IconCopy,
  IconFilter,
  IconFolder,
  IconHistory,
  IconLock,
  IconPower,
  IconSquareCheck,
  IconStack2,
  IconTableShare,
  IconTrash,
  IconUser,
  type Icon,
} from '@tabler/icons-react';
import type { Texts } from '../../texts/texts';
import type { RuleId } from '../../core/sheet/ids';
import type { LegendEntry } from '../../protocol/sheet-view';
import type { Session } from '../sheet/session';
import { sheetPageUrl } from '../../protocol/sheet-url';
import { withQuery } from '../../protocol/with-query';

/** An item of the menu of a rule. */
export interface RuleMenuItem {
  readonly icon: Icon;
  readonly words: string;
  readonly isOff?: boolean;
  readonly onClick?: () => void;
  /** For an item that leads to another page. */
  readonly href?: string;
}

interface RuleInLegend {
  readonly session: Session;
  readonly t: Texts<'legend'>;
  readonly entry: LegendEntry;
  readonly place: number;
  readonly count: number;
  /** The chosen rules of the legend. */
  readonly chosen: readonly RuleId[];
}

/** The menu of a rule in the legend, in groups. An action on a chosen rule is applied to all that are chosen. */
export function ruleMenu(shown: RuleInLegend): readonly (readonly RuleMenuItem[])[] {
  const { session, t, entry, chosen } = shown;
  const ids = chosen.includes(entry.id) ? chosen : [entry.id];
  return [
    precedenceItems(shown, ids),
    [...reachItems(shown, ids), ...keepItems(shown, ids), ...aboutItems(shown)],
    [
      {
        icon: IconTrash,
        words: t('countDeleteRules', { count: ids.length }),
        onClick: () => session.rules.removeRules(ids),
      },
    ],
  ];
}

type Ids = readonly RuleId[];

/** Whether a rule is judged, when, and what it leaves to others. */
function precedenceItems({ session: { rules }, t, entry, place, count }: RuleInLegend, ids: Ids): RuleMenuItem[] {
  const { rule, isDraft: isOff } = entry;
  return [
    {
      icon: IconPower,
      words: rule.on ? t('turnOff') : t('turnOn'),
      isOff,
      onClick: () => rules.changeRules(ids, { on: !rule.on }),
    },
    {
      icon: IconArrowUp,
      words: t('moveUp'),
      isOff: place === 0,
      onClick: () => rules.moveRule(entry.id, place - 1),
    },
    {
      icon: IconArrowDown,
      words: t('moveDown'),
      isOff: place === count - 1,
      onClick: () => rules.moveRule(entry.id, place + 1),
    },
    {
      icon: IconLock,
      words: rule.settles ? t('letLaterRulesAdd') : t('stopLaterRulesIts'),
      isOff,
      onClick: () => rules.changeRules(ids, { settles: !rule.settles }),
    },
  ];
}

/** Where else a rule is put to use. */
function reachItems({ session, t, entry }: RuleInLegend, ids: Ids): RuleMenuItem[] {
  const { rules } = session;
  const { isDraft: isOff } = entry;
  return [
    { icon: IconFilter, words: t('filterByThisRule'), onClick: () => session.filterBy({ rule: entry.id }) },
    { icon: IconCopy, words: t('duplicate'), isOff, onClick: () => rules.duplicateRule(entry.id) },
    {
      icon: IconArrowBarRight,
      words: t('copySelectedCells'),
      isOff,
      onClick: () => rules.carryToSelection(ids),
    },
    {
      icon: IconArrowsMove,
      words: t('applySelectedCellsInstead'),
      isOff,
      onClick: () => rules.reachSelection(ids),
    },
  ];
}

/** Where rules are kept, and for whom. */
function keepItems({ session, t, entry: { isDraft: isOff, isPersonal } }: RuleInLegend, ids: Ids): RuleMenuItem[] {
  const own = { kind: 'own-rules', rules: ids, whose: isPersonal ? 'everybodys' : 'mine' } as const;
  return [
    {
      icon: IconTableShare,
      words: t('copyToAnotherSheet'),
      isOff,
      onClick: () => session.openDialog({ what: 'sheet', rules: ids }),
    },
    {
      icon: IconFolder,
      words: t('addGroup'),
      isOff,
      onClick: () => session.openDialog({ what: 'group', rules: ids }),
    },
    {
      icon: IconUser,
      words: isPersonal ? t('shareWithEveryone') : t('showOnlyToMe'),
      isOff,
      onClick: () => void session.withErrorMessage(session.ask(own)),
    },
    {
      icon: IconStack2,
      words: t('saveAsRuleSet'),
      isOff,
      onClick: () => session.openDialog({ what: 'set', rules: ids }),
    },
  ];
}

function aboutItems({ session, t, entry, chosen }: RuleInLegend): RuleMenuItem[] {
  const { rules } = session;
  const isChosen = chosen.includes(entry.id);
  return [
    {
      icon: IconSquareCheck,
      words: isChosen ? t('deselect') : t('select'),
      onClick: () => rules.toggleChosen(entry.id),
    },
    {
      icon: IconHistory,
      words: t('ruleHistory'),
      href: withQuery(sheetPageUrl(session.sheet, 'history'), { rule: entry.id }),
    },
  ];
}
