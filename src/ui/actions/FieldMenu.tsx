import { Button, Menu } from '@mantine/core';
import { IconTableColumn } from '@tabler/icons-react';
import type { TotalFunction } from '../../core/edit/rows';
import { focusGrid } from '../grid/focus-grid';
import { useSession, useSessionState } from '../sheet/use-session';
import { selectedArea } from '../grid/engine/selection';

const TOTALS: readonly { is: TotalFunction; label: string }[] = [
  { is: 'sum', label: 'Sum' },
  { is: 'average', label: 'Average' },
  { is: 'median', label: 'Median' },
  { is: 'count', label: 'Count' },
  { is: 'least', label: 'Least' },
  { is: 'greatest', label: 'Greatest' },
];

/** Actions on the selected fields. */
export function FieldMenu() {
  const session = useSession();
  const frame = useSessionState((state) => state.frame);
  const { left, right } = selectedArea(useSessionState((state) => state.selection));
  const count = right - left + 1;
  const label = frame?.fields[left]?.label ?? '';
  const fields = count === 1 ? `“${label}”` : `${count} fields`;
  const hidden = frame?.fields.filter((field) => field.hidden).length ?? 0;
  return (
    <Menu onClose={focusGrid} position="bottom-start" width={250}>
      <Menu.Target>
        <Button variant="subtle" color="ink" size="compact-sm" leftSection={<IconTableColumn size={16} stroke={1.5} />}>
          Fields
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item onClick={() => session.openPanel('new-rule')}>Make a rule over {fields}</Menu.Item>
        <Menu.Item onClick={() => void session.actions.edit({ do: 'insert-fields', at: left, count })}>
          Insert {count === 1 ? 'a field' : fields} on the left
        </Menu.Item>
        <Menu.Item onClick={() => void session.actions.edit({ do: 'insert-fields', at: right + 1, count })}>
          Insert {count === 1 ? 'a field' : fields} on the right
        </Menu.Item>
        <Menu.Item onClick={() => void session.actions.fitFields(left, right)}>Fit {fields} to the content</Menu.Item>
        <Menu.Item onClick={() => void session.actions.moveSelected(-1, 0)}>Move {fields} left</Menu.Item>
        <Menu.Item onClick={() => void session.actions.moveSelected(1, 0)}>Move {fields} right</Menu.Item>
        <Menu.Item onClick={() => void session.actions.edit({ do: 'hide-fields', left, right, hidden: true })}>
          Hide {fields}
        </Menu.Item>
        {hidden > 0 && frame && (
          <Menu.Item
            onClick={() =>
              void session.actions.edit({ do: 'hide-fields', left: 0, right: frame.fields.length - 1, hidden: false })
            }
          >
            Show {hidden === 1 ? 'the hidden field' : `all ${hidden} hidden fields`}
          </Menu.Item>
        )}
        <Menu.Item onClick={() => session.openPanel('values')}>Allowed values</Menu.Item>
        {frame?.frozenColumns === right + 1 ? (
          <Menu.Item onClick={() => void session.actions.edit({ do: 'freeze-fields', through: null })}>
            Unfreeze fields
          </Menu.Item>
        ) : (
          <Menu.Item onClick={() => void session.actions.edit({ do: 'freeze-fields', through: right })}>
            Keep all up to “{frame?.fields[right]?.label}” in view
          </Menu.Item>
        )}
        <Menu.Item onClick={() => void session.actions.edit({ do: 'remove-fields', left, right })}>
          Remove {fields}
        </Menu.Item>
        <Menu.Divider />
        <TotalItems left={left} right={right} />
      </Menu.Dropdown>
    </Menu>
  );
}

/** The total that the selected fields have over all records. */
function TotalItems({ left, right }: { readonly left: number; readonly right: number }) {
  const session = useSession();
  const put = (is: TotalFunction | null) => void session.actions.edit({ do: 'set-total', left, right, is });
  return (
    <>
      <Menu.Label>Total</Menu.Label>
      {TOTALS.map(({ is, label: words }) => (
        <Menu.Item key={is} onClick={() => put(is)}>
          {words}
        </Menu.Item>
      ))}
      <Menu.Item onClick={() => put(null)}>None</Menu.Item>
    </>
  );
}
