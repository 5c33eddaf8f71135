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
    <Modal opened={isOpen} onClose={() => session.openPanel(null)} title="Allowed values" size="md">
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
        label={`Allowed values of ${left === right ? `“${field?.label ?? ''}”` : `these ${right - left + 1} fields`}, one value a line`}
        description="People choose from them when they type. Existing values stay."
        autosize
        minRows={6}
        maxRows={16}
        data-autofocus
        value={lines}
        onChange={(event) => setLines(event.currentTarget.value)}
      />
      <Group mt="md" gap="xs">
        <Button type="submit" color="ink">
          Save list
        </Button>
        <Button
          variant="default"
          onClick={() =>
            void session.actions
              .textsOf(left)
              .then((found) => setLines(found.flatMap(({ text }) => text || []).join('\n')))
          }
        >
          Use the existing values
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
