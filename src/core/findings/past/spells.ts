import type { FieldId, RowId } from '../../sheet/ids';

/** The time that a cell had a look by a rule, with one outcome: serial dates and times of day. */
export interface Spell {
  readonly row: RowId;
  readonly field: FieldId;
  readonly outcome: number;
  readonly from: number;
  /** Infinite where it has it still. */
  readonly to: number;
}

/** Joins what is known of one cell, in order of time, where the same outcome goes on. */
export class SpellsOfCell {
  private open: Spell | null = null;

  constructor(
    private readonly cell: Pick<Spell, 'row' | 'field'>,
    private readonly into: Spell[],
  ) {}

  /** The outcome from one moment to another; -1 for none. */
  add(outcome: number, from: number, to: number): void {
    const { open } = this;
    if (open && (open.outcome !== outcome || open.to !== from)) this.end();
    if (outcome < 0) return;
    this.open = this.open ? { ...this.open, to } : { ...this.cell, outcome, from, to };
  }

  end(): void {
    if (this.open) this.into.push(this.open);
    this.open = null;
  }
}
