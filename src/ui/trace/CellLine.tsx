'use client';

import { Suspense, useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { useTranslations } from 'use-intl';
import { isFormulaInput } from '../../core/values/is-formula-input';
import { writeArea } from '../../core/sheet/address';
import { ReadsAt } from '../formula/ReadsAt';
import { LazyFormulaEditor } from '../formula/lazy-formula-editor';
import { focusGrid } from '../grid/focus-grid';
import { selectedAreas } from '../grid/engine/selection';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './CellLine.module.css';
import { Names } from './Names';
import { SaysLine } from './SaysLine';
import { TraceLine } from './TraceLine';

/** The line above the grid: which cell, what was typed in it, and why it looks as it does. */
export function CellLine() {
  const session = useSession();
  const selection = useSessionState((state) => state.selection);
  const cell = useSessionState((state) => state.cell);
  const editing = useSessionState((state) => state.editing);
  const address = selectedAreas(selection).map(writeArea).join(' ');
  return (
    <div className={classes.line} data-help="formulas">
      <Address address={address} />
      {session.isMaker && <Names />}
      <Content />
      {cell?.mistake && (
        <span className={classes.mistake} role="status" title={cell.mistake}>
          {cell.mistake}
        </span>
      )}
      {editing && isFormulaInput(editing.text) ? (
        <ReadsAt formula={editing.text} column={editing.column} position={editing.position} />
      ) : (
        cell && (session.isMaker ? <TraceLine cell={cell} /> : <SaysLine cell={cell} editing={editing} />)
      )}
    </div>
  );
}

/** What was typed in the selected cell, to be edited here; a formula in the editor of formulas. */
function Content() {
  const t = useTranslations('trace');
  const session = useSession();
  const cell = useSessionState((state) => state.cell);
  const editing = useSessionState((state) => state.editing);
  const input = useRef<HTMLInputElement>(null);
  const isEditing = editing?.place === 'line';
  // A formula stays in its editor, also while its first character is deleted.
  const [isFormula, setFormula] = useState(false);
  const begins = isEditing && (isFormula || isFormulaInput(editing.text));
  if (begins !== isFormula) setFormula(begins);

  // Leaving the line for any reason must not enter a half-typed text into another cell.
  useEffect(() => {
    if (!isEditing && document.activeElement === input.current) input.current?.blur();
  }, [isEditing]);

  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Escape') session.cancelEdit();
    else if (event.key === 'Enter' && !event.nativeEvent.isComposing) session.commit();
    else return;
    event.preventDefault();
    focusGrid();
  };

  const plain = (
    <input
      ref={input}
      className={classes.input}
      aria-label={t('contentSelectedCell')}
      value={editing ? editing.text : (cell?.input ?? '')}
      readOnly={cell !== null && cell.lock !== null && !isEditing}
      // Replacing another editor, it goes on where that one was.
      autoFocus={isEditing}
      onFocus={(event) => {
        if (!isEditing) return cell?.lock ? undefined : session.beginEdit('line', cell?.input ?? '');
        const { value } = event.currentTarget;
        event.currentTarget.setSelectionRange(value.length, value.length);
      }}
      onChange={(event) => session.type(event.currentTarget.value, event.currentTarget.selectionStart ?? undefined)}
      onBlur={() => isEditing && session.commit()}
      onKeyDown={onKeyDown}
    />
  );
  if (!isEditing || !isFormula) return plain;
  return (
    <Suspense fallback={plain}>
      <LazyFormulaEditor
        label={t('contentSelectedCell')}
        className={`${classes.input} ${classes.formula}`}
        keys={{
          enter: () => ended(() => session.commit()),
          tab: () => ended(() => session.commit()),
          escape: () => ended(() => session.cancelEdit()),
        }}
      />
    </Suspense>
  );
}

/** Ends editing, and goes back to the grid; the key has been taken. */
function ended(end: () => void): true {
  end();
  focusGrid();
  return true;
}

/** Where the selection is. Another address, name or label that is typed here is gone to. */
function Address({ address }: { readonly address: string }) {
  const t = useTranslations('trace');
  const session = useSession();
  const [typed, setTyped] = useState<string | null>(null);
  const leave = () => {
    setTyped(null);
    focusGrid();
  };
  return (
    <input
      className={classes.address}
      aria-label={t('goCellRangeName')}
      data-testid="address"
      value={typed ?? address}
      size={Math.max(6, (typed ?? address).length)}
      onFocus={(event) => {
        // The text stays while somebody is in it, also when rows and fields move under the selection.
        setTyped(address);
        event.currentTarget.select();
      }}
      onChange={(event) => setTyped(event.currentTarget.value)}
      onBlur={() => setTyped(null)}
      onKeyDown={(event) => {
        const { value } = event.currentTarget;
        if (event.key === 'Enter' && value !== address) session.actions.jump(value);
        else if (event.key !== 'Escape' && event.key !== 'Enter') return;
        event.preventDefault();
        leave();
      }}
    />
  );
}
