import { ActionIcon, Menu } from '@mantine/core';
import { IconDotsVertical } from '@tabler/icons-react';
import { Fragment } from 'react';
import { useTranslations } from 'use-intl';
import type { LegendEntry } from '../../protocol/sheet-view';
import { useSession, useSessionState } from '../sheet/use-session';
import { ruleMenu, type RuleMenuItem } from './rule-menu';

interface Props {
  readonly entry: LegendEntry;
  readonly place: number;
  readonly count: number;
}

/** The menu behind a rule of the legend. */
export function RuleMenu({ entry, place, count }: Props) {
  const t = useTranslations('legend');
  const session = useSession();
  const chosen = useSessionState((state) => state.chosen);
  return (
    <Menu position="bottom-end" withinPortal>
      <Menu.Target>
        <ActionIcon variant="subtle" color="ink" size="md" aria-label={t('actionsForName', { name: entry.rule.name })}>
          <IconDotsVertical size={15} stroke={1.5} />
        </ActionIcon>
      </Menu.Target>
      <Menu.Dropdown>
        {ruleMenu({ session, t, entry, place, count, chosen }).map((group, at) => (
          <Fragment key={at}>
            {at > 0 && <Menu.Divider />}
            {group.map((item) => (
              <Item key={item.words} {...item} />
            ))}
          </Fragment>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}

function Item({ icon: Icon, words, isOff = false, onClick, href }: RuleMenuItem) {
  const icon = <Icon size={15} stroke={1.5} />;
  return href === undefined ? (
    <Menu.Item leftSection={icon} disabled={isOff} onClick={onClick}>
      {words}
    </Menu.Item>
  ) : (
    <Menu.Item component="a" leftSection={icon} href={href}>
      {words}
    </Menu.Item>
  );
}
