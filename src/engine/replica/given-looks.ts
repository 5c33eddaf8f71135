import { itemAt } from '../../core/values/item-at';
import type { LookProperty } from '../../core/looks/look';
import type { ResolvedLook } from '../../core/rules/evaluate/resolver';
import type { RuleId } from '../../core/sheet/ids';
import type { Sheet } from '../../core/sheet/sheet';
import type { GivenLook, Repaint } from '../../protocol/packed/painted-sheet';

/** The looks of cells as the server gave them, for readers without rules. */
export class GivenLooks {
  /** Words for looks, each once: a look refers to them by index. */
  readonly names: string[] = [];
  private readonly placeOf = new Map<string, number>();
  private readonly looks: { readonly resolved: ResolvedLook; readonly rules: readonly RuleId[] }[] = [];
  private readonly codes: Uint32Array[];

  /** `codes` has one array a column, row by row as the sheet was opened: slots are in that order. */
  constructor(
    private readonly sheet: Sheet,
    { looks, codes }: { readonly looks: readonly GivenLook[]; readonly codes: readonly Uint32Array[] },
  ) {
    this.add(looks);
    this.codes = codes.map((column) => column.slice());
  }

  resolve(column: number, slot: number): ResolvedLook {
    return itemAt(this.looks, this.codes[column]?.[slot] ?? 0).resolved;
  }

  /** True where a rule has made the look of a cell. */
  isMadeBy(rule: RuleId, column: number, slot: number): boolean {
    return itemAt(this.looks, this.codes[column]?.[slot] ?? 0).rules.includes(rule);
  }

  /** Applies the differences. Missing cells are skipped. */
  take({ looks, cells }: Pick<Repaint, 'looks' | 'cells'>): void {
    this.add(looks);
    for (const [row, field, look] of cells) {
      const cell = this.sheet.findCell({ row, field });
      if (!cell) continue;
      const { column, slot } = cell;
      let codes = itemAt(this.codes, column);
      if (slot >= codes.length) {
        const longer = new Uint32Array(Math.max(slot + 1, codes.length * 2));
        longer.set(codes);
        codes = this.codes[column] = longer;
      }
      codes[slot] = look;
    }
  }

  private add(looks: readonly GivenLook[]): void {
    for (const { properties, says, rules } of looks) {
      const given = new Map(Object.entries(properties)) as Map<LookProperty, unknown>;
      this.looks.push({
        rules,
        resolved: { properties: given, from: new Map(), rules: says.map((name) => this.place(name)) },
      });
    }
  }

  private place(name: string): number {
    const known = this.placeOf.get(name);
    if (known !== undefined) return known;
    this.placeOf.set(name, this.names.length);
    return this.names.push(name) - 1;
  }
}
