import { readValues, type ReadValues } from '../../core/rules/explain/profile-rule';
import type { Reads } from '../../core/rules/terms';
import type { Sheet } from '../../core/sheet/sheet';

/** The last values read, cached while no cell changes: the bench asks again and again while a threshold is dragged. */
export class ReadCache {
  private last: { readonly key: string; readonly values: ReadValues } | null = null;

  read(sheet: Sheet, reads: Reads): ReadValues {
    const key = JSON.stringify(reads);
    if (this.last?.key !== key) this.last = { key, values: readValues(sheet, reads) };
    return this.last.values;
  }

  /** A cell has changed. */
  forget(): void {
    this.last = null;
  }
}
