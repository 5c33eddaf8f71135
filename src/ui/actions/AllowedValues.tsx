import { Button, Group, Modal, Textarea } from '@mantine/core';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { selectedArea } from '../grid/engine/selection';
import { useSession, useSessionState } from '../sheet/use-session';

/** The list of values that the selected fields take: one a line. */
export function AllowedValues() {
  const t = useTranslations('actions');
  const session = useSession();
  const panel = useSessionState((state) => state.panel);
  const isOpen = panel === 'values';
  return (
    <Modal opened={isOpen} onClose={() => session.openPanel(null)} title={t('allowedValues')} size="md">
      {isOpen && <ValueList />}
    </Modal>
  );
}

function ValueList() {
  const t = useTranslations('actions');
  const session = useSession();
  const frame = useSessionState((state) => state.frame);
  const { left, right } = selectedArea(useSessionState((state) => state.selection));
  const field = frame?.fields[left];
  const [lines, setLines] = useState((field?.allowed ?? []).join('\n'));
  const keep = (allowed: readonly string[] | null) => {
    void session.actions.edit({ do: 'set-allowed', left, right, allowed });
    session.openPanel(null);
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        keep(lines.split('\n'));
      }}
    >
      <Textarea
        label={t('allowedValuesCountThese', {
          count: right - left + 1,
          label: field?.label ?? '',
        })}
        description={t('peopleChooseFromThem')}
        autosize
        minRows={6}
        maxRows={16}
        data-autofocus
        value={lines}
        onChange={(event) => setLines(event.currentTarget.value)}
      />
      <Group mt="md" gap="xs">
        <Button type="submit" color="ink">
          {t('saveList')}
        </Button>
        <Button
          variant="default"
          onClick={() =>
            void session.actions
              .textsOf(left)
              .then((found) => setLines(found.flatMap(({ text }) => text || []).join('\n')))
          }
        >
          {t('useTheExistingValues')}
        </Button>
        {field?.allowed && (
          <Button variant="subtle" color="ink" onClick={() => keep(null)}>
            {t('allowAnyValue')}
          </Button>
        )}
      </Group>
    </form>
  );
}
