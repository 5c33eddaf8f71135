import { Button, Menu } from '@mantine/core';
import { IconTableColumn } from '@tabler/icons-react';
import type { TotalFunction } from '../../core/edit/totals';
import { focusGrid } from '../grid/focus-grid';
import { useSession, useSessionState } from '../sheet/use-session';
import { selectedArea } from '../grid/engine/selection';

const TOTALS: readonly { is: TotalFunction; label: string }[] = [
  { is: 'sum', label: 'Sum' },
  { is: 'average', label: 'Average' },
  { is: 'median', label: 'Median' },
  { is: 'count', label: 'Count' },
  { is: 'least', label: 'Minimum' },
  { is: 'greatest', label: 'Maximum' },
];

/** Actions on the selected fields. */
export function FieldMenu() {
  const session = useSession();
  const frame = useSessionState((state) => state.frame);
  const { left, right } = selectedArea(useSessionState((state) => state.selection));
  const count = right - left + 1;
  const label = frame?.fields[left]?.label ?? '';
  const fields = count === 1 ? `“${label}”` : `${count} fields`;
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
        <Menu.Item
          closeMenuOnClick={false}
          onClick={() => void session.actions.fitFields(0, (frame?.fields.length ?? 1) - 1)}
        >
          Fit all fields to the content
        </Menu.Item>
        <Menu.Item onClick={() => void session.actions.moveSelected(-1, 0)}>Move {fields} left</Menu.Item>
        <Menu.Item onClick={() => void session.actions.moveSelected(1, 0)}>Move {fields} right</Menu.Item>
        <Menu.Item onClick={() => void session.actions.edit({ do: 'hide-fields', left, right, hidden: true })}>
          Hide {fields}
        </Menu.Item>
        <HiddenItem />
        <Menu.Item onClick={() => session.openPanel('values')}>Allowed values</Menu.Item>
        <FreezeItem right={right} />
        <Menu.Item onClick={() => void session.actions.edit({ do: 'remove-fields', left, right })}>
          Remove {fields}
        </Menu.Item>
        <Menu.Divider />
        <TotalItems left={left} right={right} />
      </Menu.Dropdown>
    </Menu>
  );
}

/** Brings hidden fields back. */
function HiddenItem() {
  const session = useSession();
  const fields = useSessionState((state) => state.frame?.fields) ?? [];
  const hidden = fields.filter((field) => field.hidden).length;
  if (hidden === 0) return null;
  return (
    <Menu.Item
      onClick={() => void session.actions.edit({ do: 'hide-fields', left: 0, right: fields.length - 1, hidden: false })}
    >
      Show {hidden === 1 ? 'the hidden field' : `all ${hidden} hidden fields`}
    </Menu.Item>
  );
}

/** Keeps the fields up to one in view, or lets them scroll again. */
function FreezeItem({ right }: { readonly right: number }) {
  const session = useSession();
  const frame = useSessionState((state) => state.frame);
  const freeze = (through: number | null) => void session.actions.edit({ do: 'freeze-fields', through });
  return frame?.frozenColumns === right + 1 ? (
    <Menu.Item onClick={() => freeze(null)}>Unfreeze fields</Menu.Item>
  ) : (
    <Menu.Item onClick={() => freeze(right)}>Freeze up to “{frame?.fields[right]?.label}”</Menu.Item>
  );
}

/** The total that the selected fields have over all records. */
function TotalItems({ left, right }: { readonly left: number; readonly right: number }) {
  const session = useSession();
  const put = (is: TotalFunction | null) => void session.actions.edit({ do: 'set-total', left, right, is });
  return (
    <>
      <Menu.Label>Total</Menu.Label>
      <Menu.Item onClick={() => void session.actions.edit({ do: 'add-totals' })}>Totals row for all fields</Menu.Item>
      {TOTALS.map(({ is, label: words }) => (
        <Menu.Item key={is} onClick={() => put(is)}>
          {words}
        </Menu.Item>
      ))}
      <Menu.Item onClick={() => put(null)}>None</Menu.Item>
    </>
  );
}
