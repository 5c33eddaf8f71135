export interface KeyPress {
  readonly key: string;
  readonly shift: boolean;
  /** Control, or command on machines that use it. */
  readonly control: boolean;
  readonly alt: boolean;
}

/** What a key asks of the grid while no cell is being edited. `rows` of Infinity go to the edge. */
export type KeyIntent =
  | { readonly kind: 'move'; readonly columns: number; readonly rows: number; readonly extend: boolean }
  | { readonly kind: 'page'; readonly direction: 1 | -1; readonly extend: boolean }
  | { readonly kind: 'select-all' }
  | { readonly kind: 'edit' }
  | { readonly kind: 'type'; readonly text: string }
  | { readonly kind: 'clear' }
  | { readonly kind: 'undo' }
  | { readonly kind: 'redo' };

const ARROWS: Readonly<Record<string, readonly [number, number]>> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };

/** Decides what a key means, after the keyboard conventions of the ARIA grid pattern; undefined leaves it to the browser. */
export function keyIntent({ key, shift, control, alt }: KeyPress): KeyIntent | undefined {
  if (alt) return undefined;
  const arrow = ARROWS[key];
  if (arrow) return move(arrow, control ? Infinity : 1, shift);
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
    case 'Delete':
    case 'Backspace':
      return { kind: 'clear' };
  }
  return Array.from(key).length === 1 ? { kind: 'type', text: key } : undefined;
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
  }
  return undefined;
}

const move = ([columns, rows]: readonly [number, number], times: number, extend: boolean): KeyIntent => ({
  kind: 'move',
  columns: columns && columns * times,
  rows: rows && rows * times,
  extend,
});
