import { Button, Group, Modal, TextInput } from '@mantine/core';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import type { RuleId } from '../../core/sheet/ids';
import { useSession, useSessionState } from '../sheet/use-session';

/** Asks for the group that rules are put in. */
export function NameGroup() {
  const t = useTranslations('legend');
  const session = useSession();
  const asked = useSessionState((state) => state.asked);
  const isOpen = asked?.what === 'group';
  return (
    <Modal opened={isOpen} onClose={() => session.openDialog(null)} title={t('addToGroup')} size="sm">
      {isOpen && <GroupForm rules={asked.rules} />}
    </Modal>
  );
}

function GroupForm({ rules }: { readonly rules: readonly RuleId[] }) {
  const t = useTranslations('legend');
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
        label={t('groupName')}
        description={t('rulesNextEachOther')}
        maxLength={100}
        value={name}
        onChange={(event) => setName(event.currentTarget.value)}
        data-autofocus
      />
      {known.length > 0 && (
        <Group gap="xs" mt="xs" aria-label={t('existingGroups')}>
          {known.map((group) => (
            <Button key={group} size="compact-sm" variant="default" onClick={() => put(group)}>
              {group}
            </Button>
          ))}
        </Group>
      )}
      <Button type="submit" mt="md">
        {t('save')}
      </Button>
    </form>
  );
}
