/**
 * Work that is asked for more often than it can be done: while it is under way, any number of further calls lead to one
 * more run, which finds what is the latest then. A run that fails does not keep later ones from being tried.
 */
export class LatestOnly {
  private state: 'resting' | 'running' | 'again' = 'resting';

  constructor(private readonly work: () => Promise<void>) {}

  /** Rejects with what the last run failed with. */
  async run(): Promise<void> {
    if (this.state !== 'resting') {
      this.state = 'again';
      return;
    }
    try {
      do {
        this.state = 'running';
        await this.work().catch((error: unknown) => {
          if (!this.isAsked()) throw error;
        });
      } while (this.isAsked());
    } finally {
      this.state = 'resting';
    }
  }

  private isAsked(): boolean {
    return this.state === 'again';
  }
}
