import { useEffect, useRef, type KeyboardEvent, type RefObject } from 'react';
import { useSession } from '../sheet/use-session';

interface EditorKeys {
  readonly input: RefObject<HTMLInputElement | null>;
  readonly onKeyDown: (event: KeyboardEvent<HTMLInputElement>) => void;
}

/**
 * The behaviour of a cell's input: it begins with the caret at its end; Enter and Tab enter the text and move on,
 * Escape cancels.
 */
export function useEditorKeys(onMove: (columns: number, rows: number) => void): EditorKeys {
  const session = useSession();
  const input = useRef<HTMLInputElement>(null);

  useEffect(() => {
    const element = input.current!;
    element.focus({ preventScroll: true });
    element.setSelectionRange(element.value.length, element.value.length);
  }, []);

  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    // Once what was typed has been entered, keys are the grid's, though the editor may stand for a moment longer.
    if (event.nativeEvent.isComposing || !session.get().editing) return;
    // Enter on what a list offers is the list's.
    if (event.key === 'Enter' && event.currentTarget.hasAttribute('aria-activedescendant'))
      return event.stopPropagation();
    const step = event.shiftKey ? -1 : 1;
    if (event.key === 'Escape') session.cancelEdit();
    else if (event.key === 'Enter' || event.key === 'Tab') {
      if (session.commit(true)) onMove(event.key === 'Tab' ? step : 0, event.key === 'Enter' ? step : 0);
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return { input, onKeyDown };
}
