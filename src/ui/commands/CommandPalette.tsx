import { Combobox, Modal, TextInput, useCombobox } from '@mantine/core';
import { useMounted } from '@mantine/hooks';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { SheetSummary } from '../../protocol/sheet-summary';
import { sheetPageUrl } from '../../protocol/sheet-url';
import { focusGrid } from '../grid/focus-grid';
import { useLoaded } from '../page/use-loaded';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './CommandPalette.module.css';
import { actionCommands, inGroup, placeCommands, type Command } from './commands';
import { matching } from './matching';

/** Commands that are listed at once. */
const MAX_LISTED = 40;

/** Everything that can be done or gone to, found by typing a part of its words. */
export function CommandPalette() {
  const t = useTranslations('commands');
  const session = useSession();
  const isOpen = useSessionState((state) => state.panel === 'commands');
  const close = () => {
    session.openPanel(null);
    focusGrid();
  };
  return (
    <Modal.Root opened={isOpen} onClose={close} size={560} transitionProps={{ duration: 0 }}>
      <Modal.Overlay />
      <Modal.Content aria-label={t('commands')}>
        <Modal.Body p={8}>{isOpen && <Palette onClose={close} />}</Modal.Body>
      </Modal.Content>
    </Modal.Root>
  );
}

function Palette({ onClose }: { readonly onClose: () => void }) {
  const t = useTranslations('commands');
  const session = useSession();
  const [typed, setTyped] = useState('');
  const query = typed + useSessionState((state) => state.ahead);
  const combobox = useCombobox({ opened: true });
  // The library ties the line to the list by the list's id, which it knows from the second rendering on.
  useMounted();
  const found = matching(useCommands(), query).slice(0, MAX_LISTED);
  const groups = [...new Set(found.map(({ group }) => group))];
  const submit = (id: string) => {
    onClose();
    found.find((command) => command.id === id)?.run();
  };
  return (
    <Combobox store={combobox} onOptionSubmit={submit} withinPortal={false}>
      <Combobox.EventsTarget withExpandedAttribute>
        <TextInput
          data-autofocus
          autoFocus
          aria-label={t('searchActionsRulesFields')}
          placeholder={t('searchActionsRulesFields')}
          value={query}
          onChange={(event) => {
            setTyped(event.currentTarget.value);
            session.takeAhead();
            combobox.selectFirstOption();
          }}
          // The list, which is always open, keeps Escape to itself.
          onKeyDown={(event) => event.key === 'Escape' && onClose()}
        />
      </Combobox.EventsTarget>
      <Combobox.Options className={classes.options} aria-label={t('commands')}>
        {groups.map((group) => (
          <Combobox.Group key={group} label={group}>
            {found.map(
              (command) =>
                command.group === group && (
                  <Combobox.Option key={command.id} value={command.id}>
                    {command.title}
                  </Combobox.Option>
                ),
            )}
          </Combobox.Group>
        ))}
        {found.length === 0 && <Combobox.Empty>{t('nothingHasTheseWords')}</Combobox.Empty>}
      </Combobox.Options>
    </Combobox>
  );
}

/** All commands: actions, rules, fields, and the sheets that one has. */
function useCommands(): readonly Command[] {
  const t = useTranslations('commands');
  const session = useSession();
  const legend = useSessionState((state) => state.legend);
  const frame = useSessionState((state) => state.frame);
  const { value: sheets } = useLoaded<readonly SheetSummary[]>('/api/sheets');
  const open = (id: string) => () => window.location.assign(sheetPageUrl(id));
  return [
    ...actionCommands(session, t),
    ...placeCommands(session, { legend, frame }, t),
    ...inGroup(
      t('sheets'),
      (sheets ?? []).filter(({ id }) => id !== session.sheet).map(({ id, name }) => ({ title: name, run: open(id) })),
    ),
  ];
}
