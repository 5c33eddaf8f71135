import { Button, Checkbox, Divider, Popover } from '@mantine/core';
import { IconArrowsSort } from '@tabler/icons-react';
import { useState } from 'react';
import { focusGrid } from '../grid/focus-grid';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './ActionBar.module.css';

/** Puts records in another order for everybody, or keeps some out of one's own view. */
export function OrderMenu() {
  const session = useSession();
  const frame = useSessionState((state) => state.frame);
  const legend = useSessionState((state) => state.legend);
  const column = useSessionState((state) => state.selection.anchor.column);
  const [values, setValues] = useState<readonly { text: string; count: number }[]>([]);
  const label = frame?.fields[column]?.label ?? '';
  const filter = frame?.filter ?? null;
  const chosen = filter && 'texts' in filter && filter.column === column ? new Set(filter.texts) : null;

  const toggle = (text: string) => {
    const texts = new Set(chosen ?? values.map((value) => value.text));
    if (!texts.delete(text)) texts.add(text);
    session.filterBy({ column, texts: [...texts] });
  };

  return (
    <Popover position="bottom-start" trapFocus onClose={focusGrid} onOpen={() => void session.actions.textsOf(column).then(setValues)}>
      <Popover.Target>
        <Button variant={filter ? 'light' : 'subtle'} color="ink" size="compact-sm" leftSection={<IconArrowsSort size={16} stroke={1.5} />}>
          {filter ? 'Filtered' : 'Order and filter'}
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <div className={classes.panel}>
          <div>
            <p className={classes.label}>Put all records in order of “{label}”, for everybody</p>
            <div className={classes.row}>
              <Button
                variant="default"
                size="compact-sm"
                onClick={() => void session.actions.edit({ do: 'sort-rows', by: [{ column, order: 'rising' }] })}
              >
                Rising
              </Button>
              <Button
                variant="default"
                size="compact-sm"
                onClick={() => void session.actions.edit({ do: 'sort-rows', by: [{ column, order: 'falling' }] })}
              >
                Falling
              </Button>
            </div>
          </div>
          <Divider />
          <div role="group" aria-label="Show only">
            <p className={classes.label}>Show only, in your own view</p>
            <div className={classes.values}>
              {legend.map(({ id, rule }) => (
                <Checkbox
                  key={id}
                  size="xs"
                  color="ink"
                  label={`Painted by ${rule.name}`}
                  checked={filter !== null && 'rule' in filter && filter.rule === id}
                  onChange={(event) => session.filterBy(event.currentTarget.checked ? { rule: id } : null)}
                />
              ))}
              {values.map(({ text, count }) => (
                <Checkbox
                  key={text}
                  size="xs"
                  color="ink"
                  label={`${text === '' ? 'Blank' : text} (${count})`}
                  checked={chosen ? chosen.has(text) : true}
                  onChange={() => toggle(text)}
                />
              ))}
            </div>
          </div>
          <Button variant="default" size="compact-sm" disabled={!filter} onClick={() => session.filterBy(null)}>
            Show all records
          </Button>
        </div>
      </Popover.Dropdown>
    </Popover>
  );
}
