import { Button, Popover, TextInput } from '@mantine/core';
import { IconBulb } from '@tabler/icons-react';
import { memo, useState, type KeyboardEvent } from 'react';
import type { Advice } from '../../core/rules/advice/advice';
import { adviceKey } from '../../core/rules/advice/advice-key';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './AdviceList.module.css';
import { useAdvice } from './use-advice';

/** What the check of the rules found: each finding shows its cells, and can be mended or dismissed. */
export function AdviceList() {
  const advice = useAdvice();
  return advice.length > 0 ? <AdvicePopover advice={advice} /> : null;
}

const AdvicePopover = memo(function AdvicePopover({ advice }: { readonly advice: readonly Advice[] }) {
  return (
    <Popover position="right-end" width={380} shadow="md" trapFocus returnFocus>
      <Popover.Target>
        <Button variant="subtle" color="ink" size="compact-sm" fullWidth justify="start" leftSection={<IconBulb size={15} stroke={1.5} />}>
          Advice ({advice.length})
        </Button>
      </Popover.Target>
      <Popover.Dropdown aria-label="Advice">
        <ul className={classes.list}>
          {advice.map((each) => (
            <Finding key={adviceKey(each)} advice={each} />
          ))}
        </ul>
      </Popover.Dropdown>
    </Popover>
  );
});

function Finding({ advice }: { readonly advice: Advice }) {
  const session = useSession();
  const draft = useSessionState((state) => state.legend.find(({ isDraft }) => isDraft)?.id);
  const [isDismissing, setDismissing] = useState(false);
  const [reason, setReason] = useState('');
  const { message, cells, repair, rules } = advice;
  // What is only on the bench would be kept by its repair.
  const canRepair = repair !== null && !rules.includes(draft ?? '');
  const dismiss = () => session.rules.change([{ kind: 'put-parts', parts: [{ id: adviceKey(advice), kind: 'dismissal', reason }] }]);
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter') dismiss();
  };
  return (
    <li className={classes.finding}>
      <p>{message}</p>
      <div className={classes.acts}>
        {canRepair && (
          <Button size="compact-xs" onClick={() => session.rules.change(repair)}>
            Mend it
          </Button>
        )}
        {cells.length > 0 && (
          <Button size="compact-xs" variant="default" onClick={() => session.actions.jump(cells.slice(0, 200).join(' '))}>
            Show {cells.length === 1 ? cells[0] : `${cells.length} cells`}
          </Button>
        )}
        {rules.length > 0 && (
          <Button size="compact-xs" variant="default" onClick={() => session.rules.openRule(rules[0]!)}>
            Open the rule
          </Button>
        )}
        {!isDismissing && (
          <Button size="compact-xs" variant="subtle" color="ink" onClick={() => setDismissing(true)}>
            Dismiss
          </Button>
        )}
      </div>
      {isDismissing && (
        <div className={classes.acts}>
          <TextInput
            size="xs"
            flex={1}
            autoFocus
            aria-label="Why it does not matter here"
            placeholder="Why it does not matter here"
            maxLength={500}
            value={reason}
            onChange={(event) => setReason(event.currentTarget.value)}
            onKeyDown={onKeyDown}
          />
          <Button size="compact-xs" onClick={dismiss}>
            Dismiss
          </Button>
        </div>
      )}
    </li>
  );
}
