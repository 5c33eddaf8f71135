import { ActionIcon, Menu } from '@mantine/core';
import { IconChevronDown, IconChevronRight, IconDotsVertical } from '@tabler/icons-react';
import { useTranslations } from 'use-intl';
import type { LegendEntry } from '../../protocol/sheet-view';
import { useSession } from '../sheet/use-session';
import shared from './Legend.module.css';
import classes from './GroupHead.module.css';

interface Props {
  readonly name: string;
  readonly entries: readonly LegendEntry[];
  readonly isFolded: boolean;
  readonly onFold: () => void;
}

/** The name over the rules of a group, and the actions on all of them. */
export function GroupHead({ name, entries, isFolded, onFold }: Props) {
  const t = useTranslations('legend');
  const session = useSession();
  const { rules } = session;
  const ids = entries.map(({ id }) => id);
  const isOn = entries.some(({ rule }) => rule.on);
  return (
    <li className={shared.group}>
      <button type="button" className={classes.groupName} aria-expanded={!isFolded} onClick={onFold}>
        {isFolded ? (
          <IconChevronRight size={14} stroke={1.5} aria-hidden />
        ) : (
          <IconChevronDown size={14} stroke={1.5} aria-hidden />
        )}
        <span>{name}</span>
        <span className={shared.groupCount}>{t('count', { count: entries.length })}</span>
      </button>
      <Menu position="bottom-end" withinPortal>
        <Menu.Target>
          <ActionIcon variant="subtle" color="ink" size="md" aria-label={t('actionsGroupName', { name })}>
            <IconDotsVertical size={15} stroke={1.5} />
          </ActionIcon>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item onClick={() => rules.changeRules(ids, { on: !isOn })}>
            {t('turnAllIsOn', { isOn: String(!isOn) })}
          </Menu.Item>
          <Menu.Item onClick={() => session.openDialog({ what: 'group', rules: ids })}>{t('rename')}</Menu.Item>
          <Menu.Item onClick={() => rules.chooseRules(ids)}>{t('selectItsRules')}</Menu.Item>
          <Menu.Item onClick={() => rules.groupRules(ids, null)}>{t('ungroup')}</Menu.Item>
        </Menu.Dropdown>
      </Menu>
    </li>
  );
}
