import { useEffect, useRef, type RefObject } from 'react';
import { fetchLater } from '../sheet/later';
import { prepareFormulaEditor } from '../formula/lazy-formula-editor';
import { useSession, useSessionState } from '../sheet/use-session';

/** Code that is not needed to read a sheet is fetched when the sheet is open. */
const PREPARE_AFTER_MS = 600;

/** Gives the grid the keys when the sheet is open, and back after its editor has closed. */
export function useGridFocus(scroller: RefObject<HTMLDivElement | null>): void {
  const isOpened = useSessionState((state) => state.frame !== null);
  const editing = useSessionState((state) => state.editing);
  const { isMaker } = useSession();

  useEffect(() => {
    if (!isOpened) return;
    // The keys are the grid's from the start, unless somebody is already busy elsewhere.
    if (document.activeElement === document.body) scroller.current?.focus({ preventScroll: true });
    const waiting = setTimeout(() => {
      prepareFormulaEditor();
      void fetchLater({ isMaker });
    }, PREPARE_AFTER_MS);
    return () => clearTimeout(waiting);
  }, [scroller, isOpened, isMaker]);

  const wasEditing = useRef(false);
  useEffect(() => {
    // A reader who has scrolled elsewhere meanwhile stays there.
    const isLeft = document.activeElement === document.body || scroller.current?.contains(document.activeElement);
    if (wasEditing.current && !editing && isLeft) scroller.current?.focus({ preventScroll: true });
    wasEditing.current = editing?.place === 'cell';
  }, [scroller, editing]);
}
