import { useEffect, useRef, type KeyboardEvent } from 'react';
import type { Editing } from '../sheet/session-state';
import { useSession } from '../sheet/use-session';
import type { Box } from './engine/geometry';
import classes from './Grid.module.css';

interface Props {
  readonly editing: Editing;
  readonly box: Box;
  readonly onMove: (columns: number, rows: number) => void;
}

/** The cell being typed in, over its painted place. Enter and Tab take what was typed and move on; Escape lets it go. */
export function CellEditor({ editing, box, onMove }: Props) {
  const session = useSession();
  const input = useRef<HTMLInputElement>(null);

  useEffect(() => {
    const element = input.current!;
    element.focus({ preventScroll: true });
    element.setSelectionRange(element.value.length, element.value.length);
  }, []);

  const onKeyDown = (event: KeyboardEvent) => {
    // Once what was typed has been entered, keys are the grid's, though the editor may stand for a moment longer.
    if (event.nativeEvent.isComposing || !session.get().editing) return;
    const step = event.shiftKey ? -1 : 1;
    if (event.key === 'Escape') session.cancelEdit();
    else if (event.key === 'Enter' || event.key === 'Tab') {
      session.commit();
      onMove(event.key === 'Tab' ? step : 0, event.key === 'Enter' ? step : 0);
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };

  return (
    <input
      ref={input}
      className={classes.editor}
      aria-label="Cell content"
      value={editing.text}
      style={{ left: box.x - 1, top: box.y - 1, width: Math.max(box.width + 1, 90), height: box.height + 1 }}
      onChange={(event) => session.type(event.currentTarget.value)}
      onKeyDown={onKeyDown}
      onBlur={() => session.commit()}
    />
  );
}
