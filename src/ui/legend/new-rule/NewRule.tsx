import { Button, Popover } from '@mantine/core';
import { IconPlus } from '@tabler/icons-react';
import { memo, Suspense } from 'react';
import { useTranslations } from 'use-intl';
import { focusGrid } from '../../grid/focus-grid';
import { LaterNewRuleOffers } from '../../sheet/later';
import { useSession, useSessionState } from '../../sheet/use-session';
import classes from './NewRule.module.css';

/** Opens what a new rule can be made from. */
export const NewRule = memo(function NewRule() {
  const t = useTranslations('legend');
  const session = useSession();
  const frame = useSessionState((state) => state.frame);
  const isOpen = useSessionState((state) => state.panel === 'new-rule');
  return (
    <Popover
      position="top-start"
      width="min(440px, 94vw)"
      shadow="md"
      trapFocus
      transitionProps={{ duration: 0 }}
      opened={isOpen}
      onChange={(opens) => {
        if (opens) return;
        session.openPanel(null);
        focusGrid();
      }}
    >
      <Popover.Target>
        <Button
          data-tour="new-rule"
          variant="default"
          size="compact-md"
          fz={13}
          leftSection={<IconPlus size={14} stroke={1.5} />}
          disabled={!frame}
          fullWidth
          aria-expanded={isOpen}
          onClick={() => session.openPanel(isOpen ? null : 'new-rule')}
        >
          {t('newRule')}
        </Button>
      </Popover.Target>
      <Popover.Dropdown p={0} aria-label={t('newRule')}>
        {/* The list takes the side where it has room once, when it opens: until it is there, its room is kept. */}
        <Suspense fallback={<div className={classes.awaited} />}>
          <LaterNewRuleOffers />
        </Suspense>
      </Popover.Dropdown>
    </Popover>
  );
});
