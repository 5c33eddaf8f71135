import { Button, Checkbox, NativeSelect, TextInput } from '@mantine/core';
import { useState, type FormEvent } from 'react';
import { focusGrid } from '../grid/focus-grid';
import { isSingle, selectCell } from '../grid/engine/selection';
import { counted } from '../counted';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './ActionBar.module.css';

/** Looks for a text in the sheet or the selection, goes from one place to the next, and puts another in its place. */
export function FindPanel() {
  const session = useSession();
  const panel = useSessionState((state) => state.panel);
  return panel === 'find' ? (
    <Find
      key="find"
      onClose={() => {
        session.openPanel(null);
        focusGrid();
      }}
    />
  ) : null;
}

function Find({ onClose }: { readonly onClose: () => void }) {
  const session = useSession();
  const [text, setText] = useState('');
  const [by, setBy] = useState('');
  const [exact, setExact] = useState(false);
  const [pattern, setPattern] = useState(false);
  // Where several cells were selected, only those are looked through, wherever the selection goes afterwards.
  const [area] = useState(() => (isSingle(session.get().selection) ? undefined : session.actions.area));
  const [told, setTold] = useState('');
  const legend = useSessionState((state) => state.legend);
  const meanings = useSessionState((state) => state.meanings);
  const rules = session.isMaker ? legend.map(({ id, rule }) => ({ id, name: rule.name })) : meanings;
  const [painted, setPainted] = useState('');
  const wanted = { text, exact, pattern, ...(area ? { area } : {}), ...(painted ? { painted } : {}) };
  const isEmpty = text === '' && painted === '';

  const next = async (event: FormEvent) => {
    event.preventDefault();
    const found = await session.actions.find(wanted);
    if (!found) return;
    const { column, position } = session.get().selection.anchor;
    const after = found.findIndex(
      (cell) => cell.position > position || (cell.position === position && cell.column > column),
    );
    const at = after < 0 ? 0 : after;
    setTold(
      found.length
        ? `${at + 1} of ${counted(found.length, 'cell')}`
        : area
          ? 'Not found in the selection'
          : 'Not found',
    );
    if (found[at]) session.show(selectCell(found[at]));
  };

  const replaceAll = async () => {
    const found = await session.actions.find(wanted);
    await session.actions.edit({ do: 'replace-text', ...wanted, by });
    if (found) setTold(`Replaced in ${counted(found.length, 'cell')}`);
  };

  return (
    <form
      className={classes.find}
      role="search"
      aria-label="Find and replace"
      onSubmit={(event) => void next(event)}
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return;
        event.preventDefault();
        onClose();
      }}
    >
      <TextInput
        size="xs"
        aria-label="Find"
        placeholder="Find"
        value={text}
        onChange={(event) => setText(event.currentTarget.value)}
        autoFocus
      />
      {session.isMaker && (
        <TextInput
          size="xs"
          aria-label="Replace by"
          placeholder="Replace by"
          value={by}
          onChange={(event) => setBy(event.currentTarget.value)}
        />
      )}
      <Checkbox
        size="xs"
        color="ink"
        label="Case and accents count"
        checked={exact}
        onChange={(event) => setExact(event.currentTarget.checked)}
      />
      <Checkbox
        size="xs"
        color="ink"
        label="Pattern"
        checked={pattern}
        onChange={(event) => setPattern(event.currentTarget.checked)}
      />
      <NativeSelect
        size="xs"
        hidden={rules.length === 0}
        aria-label="Which look"
        value={painted}
        data={[
          { value: '', label: 'Any look' },
          ...rules.map(({ id, name }) => ({ value: id, label: `Painted by ${name}` })),
        ]}
        onChange={(event) => setPainted(event.currentTarget.value)}
      />
      <Button type="submit" size="compact-sm" disabled={isEmpty}>
        Next
      </Button>
      {session.isMaker && (
        <Button
          variant="default"
          size="compact-sm"
          disabled={text === '' || painted !== ''}
          onClick={() => void replaceAll()}
        >
          Replace all
        </Button>
      )}
      <Button variant="subtle" color="ink" size="compact-sm" onClick={onClose}>
        Close
      </Button>
      <span role="status">{area && !told ? 'Within the selection' : told}</span>
    </form>
  );
}
