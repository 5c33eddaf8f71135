import { Button, Menu } from '@mantine/core';
import { IconPencil } from '@tabler/icons-react';
import { useTranslations } from 'use-intl';
import { useSession, useSessionState } from '../../sheet/use-session';
import classes from './DraftList.module.css';

/** Rules that were begun and put aside, to be taken up again. */
export function DraftList() {
  const t = useTranslations('legend');
  const session = useSession();
  const drafts = useSessionState((state) => state.drafts);
  if (drafts.length === 0) return null;
  return (
    <Menu position="top-start" width={260} withinPortal>
      <Menu.Target>
        <Button
          variant="subtle"
          color="ink"
          size="compact-sm"
          fullWidth
          justify="start"
          leftSection={<IconPencil size={15} stroke={1.5} />}
          aria-label={t('draftsDrafts', { drafts: drafts.length })}
        >
          <span className={classes.word}>{t('drafts')} </span>({drafts.length})
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        {drafts.map(({ draft: { id, rule } }) => (
          <Menu.Item key={id} onClick={() => session.rules.takeUp(id)}>
            {rule.name}
          </Menu.Item>
        ))}
        <Menu.Divider />
        <Menu.Item onClick={() => session.rules.discardDrafts()}>{t('discardAllDrafts')}</Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}
