import type { WindowNumber } from '../../../protocol/sheet-view';

/**
 * In which window the positions of the selection were seen. While the engine has not answered, a key goes on from a
 * selection of an earlier window, even where another is on the screen by now.
 */
export class ToldSelection {
  private waiting: { readonly seen: WindowNumber } | null = null;

  /** The window whose positions the selection has, where `shown` is the one on the screen. */
  seenIn(shown: WindowNumber): WindowNumber {
    return this.waiting?.seen ?? shown;
  }

  /** Holds that window until the engine has answered. */
  async tell(shown: WindowNumber, ask: (seen: WindowNumber) => Promise<unknown>): Promise<void> {
    const mine = { seen: this.seenIn(shown) };
    this.waiting = mine;
    try {
      await ask(mine.seen);
    } finally {
      if (this.waiting === mine) this.waiting = null;
    }
  }

  /** The engine has moved the selection to where its cells are in the window on the screen. */
  moved(): void {
    this.waiting = null;
  }
}
