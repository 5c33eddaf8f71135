import { Button, Popover } from '@mantine/core';
import { IconBulb } from '@tabler/icons-react';
import { memo } from 'react';
import { useTranslations } from 'use-intl';
import type { Advice } from '../../../core/rules/advice/advice';
import { adviceKey } from '../../../core/rules/advice/advice-key';
import classes from './AdviceList.module.css';
import { AdviceItem } from './AdviceItem';
import { useAdvice } from './use-advice';

/** The results of the check of the rules: each item shows its cells, and can be fixed or dismissed. */
export function AdviceList() {
  const advice = useAdvice();
  return advice.length > 0 ? <AdvicePopover advice={advice} /> : null;
}

const AdvicePopover = memo(function AdvicePopover({ advice }: { readonly advice: readonly Advice[] }) {
  const t = useTranslations('legend');
  return (
    <Popover position="top-start" width="min(380px, 94vw)" shadow="md" trapFocus returnFocus>
      <Popover.Target>
        <Button
          variant="subtle"
          color="ink"
          size="compact-sm"
          fullWidth
          justify="start"
          leftSection={<IconBulb size={15} stroke={1.5} />}
        >
          {t('adviceAdvice', { advice: advice.length })}
        </Button>
      </Popover.Target>
      <Popover.Dropdown aria-label={t('advice')}>
        <ul className={classes.list}>
          {advice.map((each) => (
            <AdviceItem key={adviceKey(each)} advice={each} />
          ))}
        </ul>
      </Popover.Dropdown>
    </Popover>
  );
});
