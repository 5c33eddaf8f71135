export interface KeyPress {
  readonly key: string;
  readonly shift: boolean;
  /** Control, or command on machines that use it. */
  readonly control: boolean;
  readonly alt: boolean;
}

/** The intent of a key while no cell is being edited. `rows` of Infinity go to the edge. */
export type KeyIntent =
  | { readonly kind: 'move'; readonly columns: number; readonly rows: number; readonly extend: boolean }
  | { readonly kind: 'page'; readonly direction: 1 | -1; readonly extend: boolean }
  | { readonly kind: 'select-all' }
  | { readonly kind: 'edit' }
  | { readonly kind: 'type'; readonly text: string }
  | { readonly kind: 'clear' }
  /** To the edge of the data that way. */
  | { readonly kind: 'edge'; readonly columns: number; readonly rows: number; readonly extend: boolean }
  /** Moves the selected rows or fields by one. */
  | { readonly kind: 'move-selected'; readonly columns: number; readonly rows: number }
  | { readonly kind: 'fill'; readonly direction: 'down' | 'right' }
  | { readonly kind: 'mark'; readonly mark: 'bold' | 'italic' | 'underline' }
  | { readonly kind: 'find' }
  | { readonly kind: 'help' }
  | { readonly kind: 'undo' }
  | { readonly kind: 'redo' };

const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/**
 * Decides what a key means, after the keyboard conventions of the ARIA grid pattern; undefined leaves it to the
 * browser.
 */
export function keyIntent({ key, shift, control, alt }: KeyPress): KeyIntent | undefined {
  const arrow = ARROWS[key];
  if (alt) return arrow && !control ? altIntent(key, arrow, shift) : undefined;
  if (arrow && control) return { kind: 'edge', columns: arrow[0], rows: arrow[1], extend: shift };
  if (arrow) return move(arrow, 1, shift);
  if (control) return controlIntent(key, shift);
  switch (key) {
    case 'Tab':
      return move([shift ? -1 : 1, 0], 1, false);
    case 'Home':
      return move([-1, 0], Infinity, shift);
    case 'End':
      return move([1, 0], Infinity, shift);
    case 'PageDown':
      return { kind: 'page', direction: 1, extend: shift };
    case 'PageUp':
      return { kind: 'page', direction: -1, extend: shift };
    case 'Enter':
    case 'F2':
      return { kind: 'edit' };
    case 'F1':
      return { kind: 'help' };
    case 'Delete':
    case 'Backspace':
      return { kind: 'clear' };
  }
  return Array.from(key).length === 1 ? { kind: 'type', text: key } : undefined;
}

function altIntent(key: string, [columns, rows]: readonly [number, number], shift: boolean): KeyIntent | undefined {
  if (!shift) return { kind: 'move-selected', columns, rows };
  return key === 'ArrowDown'
    ? { kind: 'fill', direction: 'down' }
    : key === 'ArrowRight'
      ? { kind: 'fill', direction: 'right' }
      : undefined;
}

function controlIntent(key: string, shift: boolean): KeyIntent | undefined {
  switch (key.toLowerCase()) {
    case 'home':
      return { kind: 'move', columns: -Infinity, rows: -Infinity, extend: shift };
    case 'end':
      return { kind: 'move', columns: Infinity, rows: Infinity, extend: shift };
    case 'a':
      return { kind: 'select-all' };
    case 'z':
      return { kind: shift ? 'redo' : 'undo' };
    case 'y':
      return { kind: 'redo' };
    case 'b':
      return { kind: 'mark', mark: 'bold' };
    case 'i':
      return { kind: 'mark', mark: 'italic' };
    case 'u':
      return { kind: 'mark', mark: 'underline' };
    case 'f':
      return { kind: 'find' };
  }
  return undefined;
}

const move = ([columns, rows]: readonly [number, number], times: number, extend: boolean): KeyIntent => ({
  kind: 'move',
  columns: columns && columns * times,
  rows: rows && rows * times,
  extend,
});
