import { Button, Group, Modal, TextInput } from '@mantine/core';
import { useState, type FormEvent } from 'react';
import type { RuleId } from '../../core/sheet/ids';
import { useSession, useSessionState } from '../sheet/use-session';

/** Asks for the group that rules are put in. */
export function NameGroup() {
  const session = useSession();
  const asked = useSessionState((state) => state.asked);
  const isOpen = asked?.what === 'group';
  return (
    <Modal opened={isOpen} onClose={() => session.openDialog(null)} title="Add to group" size="sm">
      {isOpen && <GroupForm rules={asked.rules} />}
    </Modal>
  );
}

function GroupForm({ rules }: { readonly rules: readonly RuleId[] }) {
  const session = useSession();
  const legend = useSessionState((state) => state.legend);
  const [name, setName] = useState(legend.find(({ id }) => rules.includes(id))?.rule.group ?? '');
  const known = [...new Set(legend.flatMap(({ rule }) => rule.group ?? []))];
  const put = (group: string) => {
    session.rules.groupRules(rules, group.trim() || null);
    session.openDialog(null);
  };
  const keep = (event: FormEvent) => {
    event.preventDefault();
    put(name);
  };
  return (
    <form onSubmit={keep}>
      <TextInput
        label="Group name"
        description="Rules next to each other in the legend are shown under this name. Their order stays. Leave it empty to remove them from the group."
        maxLength={100}
        value={name}
        onChange={(event) => setName(event.currentTarget.value)}
        data-autofocus
      />
      {known.length > 0 && (
        <Group gap="xs" mt="xs" aria-label="Existing groups">
          {known.map((group) => (
            <Button key={group} size="compact-sm" variant="default" onClick={() => put(group)}>
              {group}
            </Button>
          ))}
        </Group>
      )}
      <Button type="submit" mt="md">
        Save
      </Button>
    </form>
  );
}
