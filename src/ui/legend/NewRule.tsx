import { Button, Menu, Text } from '@mantine/core';
import { IconPlus } from '@tabler/icons-react';
import { useSession, useSessionState } from '../sheet/use-session';
import { BENCH_KINDS, type BenchKindName } from '../bench/kinds/registry';

/** Makes a rule over the selected field. */
export function NewRule() {
  const session = useSession();
  const frame = useSessionState((state) => state.frame);
  const selection = useSessionState((state) => state.selection);
  const label = frame?.fields[selection.anchor.column]?.label;
  return (
    <Menu position="top-start" width={290}>
      <Menu.Target>
        <Button variant="default" size="compact-md" fz={13} leftSection={<IconPlus size={14} stroke={1.5} />} disabled={!frame} fullWidth>
          New rule
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Label>Over the field {label}</Menu.Label>
        {(Object.keys(BENCH_KINDS) as BenchKindName[]).map((kind) => (
          <Menu.Item key={kind} onClick={() => void session.newRule(kind)}>
            {BENCH_KINDS[kind].title}
            <Text size="xs" c="dimmed">
              {BENCH_KINDS[kind].says}
            </Text>
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}
