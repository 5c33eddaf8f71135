import { Button, TextInput } from '@mantine/core';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { itemAt } from '../../../core/values/item-at';
import type { Advice } from '../../../core/rules/advice/advice';
import { adviceKey } from '../../../core/rules/advice/advice-key';
import { useSession, useSessionState } from '../../sheet/use-session';
import classes from './AdviceList.module.css';

/** One piece of advice: in words, with its cells, and what can be done about it. */
export function AdviceItem({ advice }: { readonly advice: Advice }) {
  const t = useTranslations('legend');
  const session = useSession();
  const draft = useSessionState((state) => state.legend.find(({ isDraft }) => isDraft)?.id);
  const [isDismissing, setDismissing] = useState(false);
  const { message, cells, repair, rules } = advice;
  // A repair would keep a rule that is only on the bench.
  const canRepair = repair !== null && !rules.includes(draft ?? '');
  const dismiss = (reason: string) =>
    session.rules.change([{ kind: 'put-parts', parts: [{ id: adviceKey(advice), kind: 'dismissal', reason }] }]);
  return (
    <li className={classes.item}>
      <p>{message}</p>
      <div className={classes.acts}>
        {canRepair && (
          <Button size="compact-xs" onClick={() => session.rules.change(repair)}>
            {t('fixIt')}
          </Button>
        )}
        {cells.length > 0 && (
          <Button
            size="compact-xs"
            variant="default"
            onClick={() => session.actions.jump(cells.slice(0, 200).join(' '))}
          >
            {t('showCountCells', { count: cells.length, cell: cells[0] ?? '' })}
          </Button>
        )}
        {rules.length > 0 && (
          <Button size="compact-xs" variant="default" onClick={() => session.rules.openRule(itemAt(rules, 0))}>
            {t('openTheRule')}
          </Button>
        )}
        {!isDismissing && (
          <Button size="compact-xs" variant="subtle" color="ink" onClick={() => setDismissing(true)}>
            {t('dismiss')}
          </Button>
        )}
      </div>
      {isDismissing && <Dismiss onDismiss={dismiss} />}
    </li>
  );
}

/** Asks why advice is dismissed. */
function Dismiss({ onDismiss }: { readonly onDismiss: (reason: string) => void }) {
  const t = useTranslations('legend');
  const [reason, setReason] = useState('');
  return (
    <div className={classes.acts}>
      <TextInput
        size="xs"
        flex={1}
        autoFocus
        aria-label={t('whyDoesNotMatter')}
        placeholder={t('whyDoesNotMatter')}
        maxLength={500}
        value={reason}
        onChange={(event) => setReason(event.currentTarget.value)}
        onKeyDown={(event) => event.key === 'Enter' && onDismiss(reason)}
      />
      <Button size="compact-xs" onClick={() => onDismiss(reason)}>
        {t('dismiss')}
      </Button>
    </div>
  );
}
