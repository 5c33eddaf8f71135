import { gzipSync } from 'node:zlib';
import { nanoid } from 'nanoid';
import { itemAt } from '../../core/values/item-at';
import { legendOf, shownFields } from '../../engine/view/legend-of';
import { meaningsOf } from '../../engine/view/meanings-of';
import type { Replica } from '../../engine/replica/replica';
import { lookValue } from '../../core/looks/look';
import type { Theme } from '../../core/looks/first-family';
import { savedLooks } from '../../core/sheet/sheet-looks';
import { OUTCOME_SAYS } from '../../core/rules/kinds/key';
import { decidingOutcome, Resolver, sourcesOf, type ResolvedLook } from '../../core/rules/evaluate/resolver';
import type { RuleMeaning } from '../../core/rules/shape/rule-meaning';
import type { RunningRule } from '../../core/rules/evaluate/running-rule';
import { hasLegend, type Reader } from '../../core/sharing/role';
import { VisibleSheet } from '../../core/sharing/sight';
import type { CellInput } from '../../core/sheet/change';
import type { Effect } from '../../core/sheet/effect';
import { packPainted, type GivenLook, type Repaint } from '../../protocol/packed/painted-sheet';
import { SheetPacker } from '../../protocol/packed/packed-sheet';
import type { RecordedChange } from '../../protocol/recorded-change';
import { sentChange } from './sent-change';
import { visibleRow } from '../../core/sheet/operations/rows';

/** Looks that a view numbers before it starts over. */
const MAX_LOOKS = 200_000;

/** Looks that are known again by themselves at once. */
const MANY_KNOWN = 10_000;

/** Steps to which the ends of bars are rounded, so that similar bars share one look. */
const BAR_STEPS = 500;

export interface ViewOf {
  readonly reader: Reader;
  readonly theme: Theme;
}

/**
 * A sheet as readers of one kind see it: knows what they have, and gives the differences after each change. All looks
 * of the sheet are resolved for that, about 0.5 microseconds a cell; values only where something was touched.
 */
export class PaintedView {
  readonly id = nanoid(12);
  revision = 0;
  private sight: VisibleSheet;
  private cut: string;
  private legend: readonly RuleMeaning[] = [];
  private toldLegend = '';
  private readonly looks: GivenLook[] = [{ properties: {}, says: [], rules: [] }];
  private readonly numbers = new Map<string, number>([[keyOf({ properties: {}, says: [], rules: [] }), 0]]);
  /** By place among the columns that are sent: the number of each slot's look. */
  private codes: Uint32Array[] = [];
  /** The results of formulas of each sent column as the readers have them, by slot. */
  private results: Map<number, string>[] = [];
  private kept: { readonly at: string; readonly bytes: Uint8Array<ArrayBuffer> } | null = null;

  constructor(
    private readonly replica: Replica,
    private readonly of: ViewOf,
  ) {
    this.sight = new VisibleSheet(replica.evaluation, of.reader);
    this.cut = this.sight.visibilityKey();
    this.codes = this.sight.columns.map(() => new Uint32Array(replica.sheet.slotCount));
    this.results = this.sight.columns.map(() => new Map());
    this.repaintCells(() => {});
    this.tellLegend();
    this.tellResults();
  }

  /** All of it as it is now, compressed with gzip; made once for all who open it before it changes. */
  packed(about: { readonly id: string; readonly name: string }): Uint8Array<ArrayBuffer> {
    const at = `${this.replica.sequence} ${this.revision}`;
    if (this.kept?.at !== at) this.kept = { at, bytes: gzipSync(this.pack(about), { level: 3 }) };
    return this.kept.bytes;
  }

  private pack(about: { readonly id: string; readonly name: string }): Uint8Array<ArrayBuffer> {
    const { sheet, sequence } = this.replica;
    const { columns } = this.sight;
    const packer = new SheetPacker({
      ...about,
      settings: sheet.settings,
      sequence,
      fields: this.sight.fields(),
      rules: [],
      parts: this.sight.parts(),
    });
    const formatted = new Set([...sheet.rowsWithAbout()].map(([slot]) => slot));
    for (const { styles } of sheet.columns) for (const slot of styles.keys()) formatted.add(slot);
    for (const slot of sheet.order)
      packer.addCells(
        formatted.has(slot)
          ? visibleRow(sheet.storedRow(slot), this.sight, sheet)
          : { id: sheet.rowId(slot), key: sheet.rowKey(slot), role: sheet.roleAt(slot) },
        (at) => this.sight.inputAt(itemAt(columns, at), slot),
      );
    const codes = columns.map((_, at) => Uint32Array.from(sheet.order, (slot) => this.codes[at]![slot] ?? 0));
    const { role, own } = this.of.reader;
    return packPainted(
      packer.pack(),
      { view: this.id, revision: this.revision, role, own, looks: this.looks, legend: this.legend },
      codes,
    );
  }

  /** The differences after some changes; `stale` where readers must load again, null where there are none. */
  follow(changes: readonly RecordedChange[], effects: readonly Effect[]): Repaint | 'stale' | null {
    this.sight = new VisibleSheet(this.replica.evaluation, this.of.reader);
    if (this.sight.visibilityKey() !== this.cut || this.looks.length > MAX_LOOKS) return 'stale';
    const sent = changes.flatMap((change) => sentChange(change, this.sight, this.replica.sheet) ?? []);
    const values = this.tellResults(effects);
    const known = this.looks.length;
    const cells: [string, string, number][] = [];
    this.repaintCells((...cell) => cells.push(cell));
    const hasLegend = this.tellLegend();
    if (sent.length === 0 && values.length === 0 && cells.length === 0 && !hasLegend) return null;
    return {
      revision: ++this.revision,
      sequence: this.replica.sequence,
      changes: sent,
      values,
      looks: this.looks.slice(known),
      cells,
      ...(hasLegend ? { legend: this.legend } : {}),
    };
  }

  /**
   * Results of formulas that are new to readers: of what was touched, or of all where rows or fields were inserted,
   * removed or moved.
   */
  private tellResults(effects?: readonly Effect[]): CellInput[] {
    const { sheet } = this.replica;
    const changed: CellInput[] = [];
    const tell = (at: number, slot: number): void => {
      const column = itemAt(this.sight.columns, at);
      const told = itemAt(this.results, at);
      if (!sheet.column(column).formulas.has(slot) || sheet.positionOf(slot) < 0) return void told.delete(slot);
      const input = this.sight.inputAt(column, slot);
      if (told.get(slot) === input) return;
      told.set(slot, input);
      changed.push({ ...sheet.cellIds(column, slot), input });
    };
    if (effects?.every((effect) => effect.kind !== 'layout')) {
      for (const effect of effects) {
        const at = effect.kind === 'cell' ? this.sight.columns.indexOf(effect.column) : -1;
        if (effect.kind === 'cell' && at >= 0) tell(at, effect.slot);
      }
      return changed;
    }
    this.sight.columns.forEach((column, at) => {
      const { formulas } = sheet.column(column);
      for (const slot of itemAt(this.results, at).keys())
        if (!formulas.has(slot)) itemAt(this.results, at).delete(slot);
      formulas.forEach((slot) => tell(at, slot));
    });
    return changed;
  }

  /** Looks up the look of every cell; tells of those that have another than before. */
  private repaintCells(tell: (row: string, field: string, look: number) => void): void {
    const { sheet } = this.replica;
    const rules = this.sight.rules();
    const withLegend = hasLegend(this.of.reader.role);
    const resolver = resolverOf(this.replica, rules, this.of.theme);
    const known = new Map<ResolvedLook, number>();
    this.sight.columns.forEach((column, at) => {
      const codes = (this.codes[at] = grown(this.codes[at]!, sheet.slotCount));
      for (const slot of sheet.order) {
        // A look would tell what is in a cell that is not sent.
        const look = this.sight.isVisible(column, slot) ? resolver.resolve(column, slot) : resolver.none;
        const says = withLegend ? undefined : judgedWords(look, { rules, column, slot });
        // Where the same look always says the same, it need not be spelled out again.
        let number = says ? undefined : known.get(look);
        if (number === undefined) {
          number = this.numberOf(look, rules, says ?? look.rules.map((rule) => itemAt(rules, rule).rule.name));
          // Bars and scales have a look of its own for each cell.
          if (known.size === MANY_KNOWN) known.clear();
          if (!says) known.set(look, number);
        }
        if (codes[slot] === number) continue;
        codes[slot] = number;
        tell(sheet.rowId(slot), sheet.field(column).id, number);
      }
    });
  }

  private numberOf(look: ResolvedLook, rules: readonly RunningRule[], says: readonly string[]): number {
    const given = givenLook(look, { rules, says, withLegend: hasLegend(this.of.reader.role) });
    const key = keyOf(given);
    const known = this.numbers.get(key);
    if (known !== undefined) return known;
    const number = this.looks.push(given) - 1;
    this.numbers.set(key, number);
    return number;
  }

  /** Rebuilds the legend; true where it has changed. */
  private tellLegend(): boolean {
    if (!hasLegend(this.of.reader.role)) return false;
    const { activeRules } = this.replica.evaluation;
    const fields = shownFields(this.replica.sheet);
    this.legend = meaningsOf(legendOf(this.replica), fields).map((meaning) => {
      const rule = activeRules.find((candidate) => candidate.rule.id === meaning.id);
      // Words about a hidden field would give away its contents; words about an answer key, the answers.
      const isKey = rule?.rule.when.kind === 'key';
      return rule && !isKey && !this.sight.dependsOnHidden(rule) ? meaning : withoutContents(meaning, isKey);
    });
    const told = JSON.stringify(this.legend);
    if (told === this.toldLegend) return false;
    this.toldLegend = told;
    return true;
  }
}

/** The look of one cell as it is now, for a filler. */
export function lookFor(
  replica: Replica,
  { reader, theme }: ViewOf,
  { column, slot }: { readonly column: number; readonly slot: number },
): GivenLook {
  const rules = new VisibleSheet(replica.evaluation, reader).rules();
  const look = resolverOf(replica, rules, theme).resolve(column, slot);
  return givenLook(look, { rules, says: judgedWords(look, { rules, column, slot }), withLegend: false });
}

const resolverOf = ({ sheet }: Replica, rules: readonly RunningRule[], theme: Theme): Resolver =>
  new Resolver(rules, savedLooks(sheet.parts.values(), theme), sheet);

interface Judged {
  readonly rules: readonly RunningRule[];
  readonly column: number;
  readonly slot: number;
}

/** A filler's words for a look: how an answer was judged, and no rule's name. */
const judgedWords = (look: ResolvedLook, { rules, column, slot }: Judged): string[] =>
  look.rules.flatMap((index) => {
    const running = itemAt(rules, index);
    if (running.rule.when.kind !== 'key') return [];
    return OUTCOME_SAYS[decidingOutcome(running, sourcesOf(running, column), slot).outcome] ?? [];
  });

interface LookContext {
  readonly rules: readonly RunningRule[];
  readonly says: readonly string[];
  readonly withLegend: boolean;
}

function givenLook(look: ResolvedLook, { rules, says, withLegend }: LookContext): GivenLook {
  const bar = lookValue(look.properties, 'bar');
  const properties = Object.fromEntries(look.properties);
  return {
    properties: bar ? { ...properties, bar: { ...bar, start: stepped(bar.start), end: stepped(bar.end) } } : properties,
    says,
    rules: withLegend ? look.rules.map((rule) => itemAt(rules, rule).rule.id) : [],
  };
}

const keyOf = (look: GivenLook): string => JSON.stringify(look);

const stepped = (share: number): number => Math.round(share * BAR_STEPS) / BAR_STEPS;

/** Slots are only ever added. */
function grown(codes: Uint32Array, slots: number): Uint32Array {
  if (codes.length >= slots) return codes;
  const more = new Uint32Array(Math.max(slots, codes.length * 2));
  more.set(codes);
  return more;
}

/** The words about a rule that do not reveal what it reads: of an answer key, how answers were judged. */
const withoutContents = (meaning: RuleMeaning, isKey: boolean): RuleMeaning => ({
  ...meaning,
  sentence: null,
  outcomes: meaning.outcomes.map((outcome) => ({ ...outcome, says: isKey ? outcome.says : '' })),
});
