import type { ClipboardEvent } from 'react';
import { useSession } from '../../sheet/use-session';
import { readClipboard } from './read-clipboard';

/** Copy, cut and paste on the grid; while a cell is edited they are the editor's. */
export function useGridClipboard() {
  const session = useSession();
  const onCopy = (event: ClipboardEvent) => {
    if (session.get().editing) return;
    event.preventDefault();
    void session.actions.copy();
  };
  const onCut = (event: ClipboardEvent) => {
    if (session.get().editing) return;
    event.preventDefault();
    void session.actions.cut();
  };
  const onPaste = (event: ClipboardEvent) => {
    if (session.get().editing) return;
    const table = readClipboard(event.clipboardData);
    if (!table) return;
    event.preventDefault();
    void session.actions.paste(table, 'all');
  };
  return { onCopy, onCut, onPaste };
}
