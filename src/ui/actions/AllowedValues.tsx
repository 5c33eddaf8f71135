import { Button, Group, Modal, Textarea } from '@mantine/core';
import { useState } from 'react';
import { selectedArea } from '../grid/engine/selection';
import { useSession, useSessionState } from '../sheet/use-session';

/** The list of values that the selected fields take: one a line. */
export function AllowedValues() {
  const session = useSession();
  const panel = useSessionState((state) => state.panel);
  const isOpen = panel === 'values';
  return (
    <Modal opened={isOpen} onClose={() => session.openPanel(null)} title="Values to choose from" size="md">
      {isOpen && <ValueList />}
    </Modal>
  );
}

function ValueList() {
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
        label={`What can be entered in ${left === right ? `“${field?.label ?? ''}”` : `these ${right - left + 1} fields`}, one value a line`}
        description="They are offered where somebody types; what is there already stays."
        autosize
        minRows={6}
        maxRows={16}
        data-autofocus
        value={lines}
        onChange={(event) => setLines(event.currentTarget.value)}
      />
      <Group mt="md" gap="xs">
        <Button type="submit" color="ink">
          Keep the list
        </Button>
        <Button
          variant="default"
          onClick={() =>
            void session.actions
              .textsOf(left)
              .then((found) => setLines(found.flatMap(({ text }) => text || []).join('\n')))
          }
        >
          Take what is there
        </Button>
        {field?.allowed && (
          <Button variant="subtle" color="ink" onClick={() => keep(null)}>
            Allow any value
          </Button>
        )}
      </Group>
    </form>
  );
}
