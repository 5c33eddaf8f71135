/** Thrown when the user cancels a long operation; its partial effects are rolled back. */
export class Stopped extends Error {
  constructor() {
    super('Stopped. The sheet is as it was.');
  }
}

/**
 * One piece of work at the sheet at a time, first come, first served. A long one rests between its parts: then the
 * worker hears what else is asked, which waits for its own turn, and whether the work is to stop.
 */
export class Turns {
  private current: Promise<unknown> | null = null;
  private isToStop = false;

  /** `tell` hears which share of a long piece of work is done. */
  constructor(private readonly tell: (share: number) => void) {}

  /** Does a piece of work when its turn comes: at once where nothing else is being done. */
  async take<T>(work: () => T | Promise<T>): Promise<T> {
    while (this.current) await this.current;
    this.isToStop = false;
    const result = work();
    if (!(result instanceof Promise)) return result;
    this.current = result.catch(() => {});
    try {
      return await result;
    } finally {
      this.current = null;
    }
  }

  /** Ends the long piece of work that is being done, where there is one. */
  stop(): null {
    this.isToStop = true;
    return null;
  }

  /** To be awaited between the parts of long work. Throws `Stopped` where it is to end. */
  readonly rest = async (share: number): Promise<void> => {
    this.tell(share);
    await new Promise((resolve) => setTimeout(resolve));
    if (this.isToStop) throw new Stopped();
  };
}
