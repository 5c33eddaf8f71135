import { ActionIcon, Button, Menu } from '@mantine/core';
import { IconDotsVertical } from '@tabler/icons-react';
import { PickLook } from '../bench/look/PickLook';
import { counted } from '../counted';
import { memo } from 'react';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './Legend.module.css';

/** What stands over the legend: its title, or how many rules are chosen, and what can be done to many at once. */
export const LegendHead = memo(function LegendHead() {
  const session = useSession();
  const legend = useSessionState((state) => state.legend);
  const chosen = useSessionState((state) => state.chosen);
  const onlyTouching = useSessionState((state) => state.onlyTouching);
  const { rules } = session;
  return (
    <div className={classes.head}>
      <h2 className={classes.title}>{chosen.length ? `${counted(chosen.length, 'rule')} chosen` : onlyTouching ? 'On the selection' : 'Legend'}</h2>
      {chosen.length > 0 ? (
        <>
          <PickLook
            label="Look of the chosen rules"
            value={null}
            nothing="look"
            onPick={(look) => look && rules.changeRules(chosen, (rule) => (rule.look ? { ...rule, look } : rule))}
          />
          <Button size="compact-xs" variant="default" onClick={() => rules.clearChosen()}>
            Choose none
          </Button>
        </>
      ) : (
        legend.length > 0 && (
          <Menu position="bottom-end">
            <Menu.Target>
              <ActionIcon variant="subtle" color="ink" size="md" aria-label="What to do with the legend">
                <IconDotsVertical size={15} stroke={1.5} />
              </ActionIcon>
            </Menu.Target>
            <Menu.Dropdown>
              <Menu.Item onClick={() => rules.showOnlyTouching(!onlyTouching)}>
                {onlyTouching ? 'Show all rules' : 'Show only rules on the selection'}
              </Menu.Item>
              <Menu.Divider />
              <Menu.Item onClick={() => void rules.removeTouching()}>Remove the rules on the selection</Menu.Item>
              <Menu.Item onClick={() => rules.removeRules(legend.map(({ id }) => id))}>Remove all rules</Menu.Item>
            </Menu.Dropdown>
          </Menu>
        )
      )}
    </div>
  );
});
