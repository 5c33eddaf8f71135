import { Button, Menu } from '@mantine/core';
import { IconTableRow } from '@tabler/icons-react';
import { ROW_ROLES } from '../../core/sheet/row-role';
import { focusGrid } from '../grid/focus-grid';
import { useSession, useSessionState } from '../sheet/use-session';
import { selectedArea } from '../grid/engine/selection';

/** Actions on the selected rows. */
export function RowMenu() {
  const session = useSession();
  const { top, bottom } = selectedArea(useSessionState((state) => state.selection));
  const fold = useSessionState((state) => state.frame?.folds.find(({ position }) => position === top));
  const isBanded = useSessionState((state) => state.frame?.isBanded ?? false);
  const count = bottom - top + 1;
  const rows = count === 1 ? `row ${top + 1}` : `rows ${top + 1} to ${bottom + 1}`;
  return (
    <Menu onClose={focusGrid} position="bottom-start" width={240}>
      <Menu.Target>
        <Button variant="subtle" color="ink" size="compact-sm" leftSection={<IconTableRow size={16} stroke={1.5} />}>
          Rows
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item onClick={() => void session.actions.addRecord()}>Add record at the end</Menu.Item>
        <Menu.Item onClick={() => void session.actions.edit({ do: 'insert-rows', at: top, count })}>
          Insert {count === 1 ? 'a row' : `${count} rows`} above
        </Menu.Item>
        <Menu.Item onClick={() => void session.actions.edit({ do: 'insert-rows', at: bottom + 1, count })}>
          Insert {count === 1 ? 'a row' : `${count} rows`} below
        </Menu.Item>
        <Menu.Item onClick={() => void session.actions.edit({ do: 'duplicate-rows', top, bottom })}>
          Duplicate {rows}
        </Menu.Item>
        <Menu.Item onClick={() => void session.actions.moveSelected(0, -1)}>Move {rows} up</Menu.Item>
        <Menu.Item onClick={() => void session.actions.moveSelected(0, 1)}>Move {rows} down</Menu.Item>
        <Menu.Item onClick={() => void session.actions.edit({ do: 'remove-rows', top, bottom })}>
          Remove {rows}
        </Menu.Item>
        <Menu.Item onClick={() => void session.actions.removeDuplicates()}>Remove duplicate records</Menu.Item>
        <Menu.Item onClick={() => void session.actions.edit({ do: 'shift-level', top, bottom, by: 1 })}>
          Indent {rows}
        </Menu.Item>
        <Menu.Item onClick={() => void session.actions.edit({ do: 'shift-level', top, bottom, by: -1 })}>
          Outdent {rows}
        </Menu.Item>
        {fold && (
          <Menu.Item onClick={() => session.actions.toggleFold(top)}>
            {fold.folded ? 'Unfold' : 'Fold'} what is beneath row {top + 1}
          </Menu.Item>
        )}
        <Menu.Item onClick={() => void session.actions.edit({ do: 'band-records', on: !isBanded })}>
          {isBanded ? 'Remove striping' : 'Stripe records'}
        </Menu.Item>
        <Menu.Divider />
        <RoleItems top={top} bottom={bottom} />
      </Menu.Dropdown>
    </Menu>
  );
}

/** What the selected rows are for. */
function RoleItems({ top, bottom }: { readonly top: number; readonly bottom: number }) {
  const session = useSession();
  const role = useSessionState((state) => state.cell?.role);
  const isOne = top === bottom;
  return (
    <>
      <Menu.Label>{isOne ? 'Use this row as' : 'Use these rows as'}</Menu.Label>
      {ROW_ROLES.map((name) => (
        <Menu.Item
          key={name}
          disabled={isOne && role === name}
          onClick={() => void session.actions.edit({ do: 'set-role', top, bottom, role: name })}
        >
          {name.charAt(0).toUpperCase() + name.slice(1)}
        </Menu.Item>
      ))}
    </>
  );
}
