import { ActionIcon, Button, Popover, TextInput, Tooltip } from '@mantine/core';
import { IconTag, IconX } from '@tabler/icons-react';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { focusGrid } from '../grid/focus-grid';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './Names.module.css';

/** The names that cells have in this sheet: to go to, to give, and to take away. */
export function Names() {
  const t = useTranslations('trace');
  const session = useSession();
  const names = useSessionState((state) => state.frame?.names ?? NONE);
  const [name, setName] = useState('');
  return (
    <Popover position="bottom-start" trapFocus onClose={focusGrid}>
      <Popover.Target>
        <Tooltip label={t('namesOfCells')}>
          <ActionIcon variant="subtle" color="ink" size="sm" aria-label={t('namesOfCells')}>
            <IconTag size={15} stroke={1.5} />
          </ActionIcon>
        </Tooltip>
      </Popover.Target>
      <Popover.Dropdown aria-label={t('namesOfCells')}>
        <div className={classes.names}>
          {names.length === 0 && <p>{t('cellsHaveNameCan')}</p>}
          <ul>
            {names.map((known) => (
              <li key={known.id}>
                <Button variant="subtle" color="ink" size="compact-sm" onClick={() => session.actions.jump(known.name)}>
                  {known.name}
                </Button>
                <span>{known.refersTo.slice(1).replaceAll('$', '')}</span>
                <ActionIcon
                  variant="subtle"
                  color="ink"
                  size="sm"
                  aria-label={t('removeTheNameName', { name: known.name })}
                  onClick={() => void session.actions.edit({ do: 'remove-name', name: known.name })}
                >
                  <IconX size={14} stroke={1.5} />
                </ActionIcon>
              </li>
            ))}
          </ul>
          <form
            onSubmit={(event) => {
              event.preventDefault();
              void session.actions.edit({ do: 'name-cells', name, area: session.actions.area });
              setName('');
            }}
          >
            <TextInput
              size="xs"
              label={t('nameTheSelectedCells')}
              placeholder={t('suchAsLimits')}
              value={name}
              onChange={(event) => setName(event.currentTarget.value)}
            />
            <Button type="submit" variant="default" size="xs" disabled={name.trim() === ''}>
              {t('name')}
            </Button>
          </form>
        </div>
      </Popover.Dropdown>
    </Popover>
  );
}

const NONE: readonly never[] = [];
