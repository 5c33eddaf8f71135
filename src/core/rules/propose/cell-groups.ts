import { TAG } from '../../values/cell-value';
import type { FieldId } from '../../sheet/ids';
import type { Evidence, ExampleCell } from './evidence';

/** A field whose values are so few that its records can be compared within each. */
interface GroupField {
  readonly field: FieldId;
  readonly column: number;
}

/** Fields that are tried for grouping. */
const MAX_GROUP_FIELDS = 3;
/** Contents of a field that may be groups, at most this share of the records. */
const MAX_GROUP_SHARE = 0.34;

/**
 * Fields by which records can be grouped: texts, two values at least, and each of them several times. None where others
 * than the cells read were pointed at. Cost: a pass over the codes of each field with few contents.
 */
function groupFields({ sheet, read, isPointed }: Evidence): GroupField[] {
  const slots = read[0]?.slots;
  if (!slots || !isPointed) return [];
  const most = slots.count() * MAX_GROUP_SHARE;
  const found: GroupField[] = [];
  for (let column = 0; column < sheet.fields.length && found.length < MAX_GROUP_FIELDS; column++) {
    const { tags, codes, contents } = sheet.column(column);
    if (contents.count > most || read.some((each) => each.column === column)) continue;
    const seen = new Uint8Array(contents.count);
    const isOther = slots.some((slot) => {
      if (tags[slot] === TAG.text) seen[codes[slot] ?? 0] = 1;
      return tags[slot] === TAG.number || tags[slot] === TAG.date;
    });
    if (!isOther && seen.reduce((sum, each) => sum + each, 0) > 1)
      found.push({ field: sheet.field(column).id, column });
  }
  return found;
}

/** The numbers of the group that a cell belongs to. */
export interface CellGroup {
  readonly number: number;
  readonly count: number;
  readonly mean: number;
  /** Sample deviation; NaN of fewer than two. */
  readonly deviation: number;
  /** Numbers of the group that are greater, and that are less. */
  readonly above: number;
  readonly below: number;
}

/** The groups of the cells that are wanted and of those that are not, by one field or over all numbers read. */
export interface GroupsKnown {
  readonly by: GroupField | undefined;
  readonly wanted: readonly CellGroup[];
  readonly others: readonly CellGroup[];
}

const found = new WeakMap<Evidence, readonly GroupsKnown[]>();

/**
 * The groups that the examples belong to: over all numbers read, then by each field that records can be grouped by. None
 * where a cell that is wanted holds no number. Cost: a pass over the numbers read, each beside each of the examples,
 * once for all who ask. Sums are plain: what is found with them is evaluated again.
 */
export function groupsKnown(evidence: Evidence): readonly GroupsKnown[] {
  let groups = found.get(evidence);
  if (!groups) found.set(evidence, (groups = findGroups(evidence)));
  return groups;
}

function findGroups(evidence: Evidence): GroupsKnown[] {
  const { yes, no } = evidence;
  if (yes.length === 0 || yes.some((cell) => Number.isNaN(evidence.numberOf(cell)))) return [];
  return [undefined, ...groupFields(evidence)].map((by) => {
    const groups = groupsOf(evidence, [...yes, ...no], by);
    return { by, wanted: groups.slice(0, yes.length), others: groups.slice(yes.length) };
  });
}

function groupsOf(evidence: Evidence, cells: readonly ExampleCell[], by?: GroupField): CellGroup[] {
  const codes = by && evidence.sheet.column(by.column).codes;
  const groups = cells.map((cell) => new PlainGroup(evidence.numberOf(cell), codes?.[cell.slot]));
  evidence.forEachNumber((number, slot) => {
    const code = codes?.[slot];
    for (const group of groups) if (group.code === code) group.add(number);
  });
  return groups.map((group) => group.told());
}

/** One number beside those of its group: sums that are shifted by it, and how many are greater and less. */
class PlainGroup {
  private count = 0;
  private sum = 0;
  private squares = 0;
  private above = 0;
  private below = 0;

  constructor(
    readonly number: number,
    readonly code: number | undefined,
  ) {}

  add(other: number): void {
    const by = other - this.number;
    this.count++;
    this.sum += by;
    this.squares += by * by;
    if (by > 0) this.above++;
    else if (by < 0) this.below++;
  }

  told(): CellGroup {
    const { number, count, squares, above, below } = this;
    const away = this.sum / count;
    const deviation = count > 1 ? Math.sqrt(Math.max(0, (squares - count * away * away) / (count - 1))) : NaN;
    return { number, count, mean: number + away, deviation, above, below };
  }
}
