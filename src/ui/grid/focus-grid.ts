/** Gives the keyboard back to the grid, once whatever closes now has let go of it. */
export function focusGrid(): void {
  setTimeout(() => document.querySelector<HTMLElement>('[role=grid]')?.focus({ preventScroll: true }));
}
