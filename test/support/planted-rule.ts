import { itemAt } from '../../src/core/values/item-at';
import { isoFromSerial } from '../../src/core/values/dates/date-serial';
import type { Look } from '../../src/core/looks/look';
import type { When } from '../../src/core/rules/kinds/registry';
import { Evaluation } from '../../src/core/rules/evaluate/evaluation';
import { RunningRule } from '../../src/core/rules/evaluate/running-rule';
import { PaintedCells } from '../../src/core/rules/induce/painted-cells';
import { proposeRules } from '../../src/core/rules/induce/propose-rules';
import type { Proposal } from '../../src/core/rules/induce/proposal';
import { tellingCell } from '../../src/core/rules/induce/telling-cell';
import { sheetFromTable } from '../../src/core/sheet/sheet-from-table';

// Rules that somebody has in mind, over tables made at random; and what is proposed to them after some examples.

const TODAY = 46_000;
const STATIONS = ['Alder Weir', 'Birch Pool', 'Cedar Ford', 'Dipper Bend', 'Elm Mill', 'Fern Sluice'];
const STATES = ['open', 'done', 'late', 'waiting'];
const NOTES = ['calm', 'rain', 'foam', 'low', 'muddy', 'clear', 'ice', 'probe', 'fault'];
const LABELS = ['Serial', 'Station', 'State', 'Marks', 'Level', 'Plan', 'Day', 'Note'];
const LOOKS: readonly Look[] = [{ fill: '#aa0000' }, { fill: '#00aa00' }, { fill: '#0000aa' }];

/** The families of rules that are proposed, each as often as the others. */
export const FAMILIES = [
  'compare',
  'text',
  'state',
  'date',
  'average',
  'rank',
  'repeat',
  'two conditions',
  'bands',
  'category',
] as const;
export type Family = (typeof FAMILIES)[number];

/**
 * How the examples are found: all at random, half of them painted; by the cells that are asked about; or by the cells
 * that somebody sees painted wrongly by the best proposal.
 */
export type Choosing = 'at random' | 'asked' | 'corrected';

interface Planted {
  readonly family: Family;
  readonly column: number;
  readonly when: When;
  readonly looks: number;
}

class Chance {
  constructor(private readonly next: () => number) {}

  whole = (from: number, to: number): number => from + Math.floor(this.next() * (to - from + 1));
  is = (share: number): boolean => this.next() < share;
  of = <T>(list: readonly T[]): T => itemAt(list, this.whole(0, list.length - 1));
  shuffled = <T>(list: readonly T[]): T[] =>
    list
      .map((item) => ({ item, at: this.next() }))
      .sort((a, b) => a.at - b.at)
      .map(({ item }) => item);

  /** A mark that a person would choose as a limit. */
  limit = (): number => this.of([this.whole(1, 19) * 5, this.whole(1, 9) * 10]);
  /** Two of them, ten apart at least. */
  limits = (): [number, number] => {
    const low = Math.min(this.limit(), 80);
    return [low, low + this.whole(2, (100 - low) / 5) * 5];
  };
}

function tableOf(chance: Chance, records: number): string[][] {
  const record = () => [
    `${chance.of(['WR', 'WR', 'KX', 'KX', 'PL'])}-${chance.whole(100, 130)}`,
    chance.of(STATIONS),
    chance.is(0.08) ? '' : chance.of(STATES),
    chance.is(0.05) ? '' : String(chance.whole(0, 100)),
    chance.is(0.05) ? chance.of(['', 'n/a']) : (chance.whole(0, 140) / 10).toFixed(1),
    String(chance.whole(20, 200)),
    chance.is(0.05) ? '' : isoFromSerial(TODAY + chance.whole(-120, 60)),
    chance.is(0.2) ? '' : `${chance.of(NOTES)} ${chance.of(NOTES)}`,
  ];
  return [LABELS, ...Array.from({ length: records }, record)];
}

const [SERIAL, STATION, STATE, MARKS, LEVEL, PLAN, DAY, NOTE] = [0, 1, 2, 3, 4, 5, 6, 7] as const;

function plant(family: Family, chance: Chance, fieldAt: (column: number) => string): Planted {
  const over = (column: number, when: When, looks = 1): Planted => ({ family, column, when, looks });
  switch (family) {
    case 'compare':
      return over(...comparison(chance, fieldAt));
    case 'text': {
      const { of } = chance;
      return of([
        () => over(NOTE, { kind: 'text', is: 'contains', any: [of(NOTES)] }),
        () => over(NOTE, { kind: 'text', is: 'lacks', any: [of(NOTES)] }),
        () => over(SERIAL, { kind: 'text', is: 'starts', any: [of(['WR', 'KX', 'PL'])] }),
        () => over(SERIAL, { kind: 'text', is: 'ends', any: [of(['0', '5', '7'])] }),
        () => over(STATION, { kind: 'text', is: 'contains', any: [of(['Weir', 'Pool', 'Ford', 'Mill'])] }),
        () => over(STATE, { kind: 'text', is: 'equals', any: ['open', 'late'] }),
      ])();
    }
    case 'state':
      return over(chance.of([STATE, MARKS, LEVEL, DAY, NOTE]), {
        kind: 'state',
        is: chance.of(['blank', 'filled'] as const),
      });
    case 'date':
      return over(DAY, { kind: 'date', ...chance.of(spans(chance)) } as When);
    case 'average':
      return over(chance.of([MARKS, LEVEL]), {
        kind: 'average',
        is: chance.of(['above', 'below'] as const),
        ...chance.of([{}, {}, { deviations: 1 }, { deviations: 1.5 }]),
      });
    case 'rank':
      return over(chance.of([MARKS, LEVEL, PLAN]), {
        kind: 'rank',
        is: chance.of(['top', 'bottom'] as const),
        ...chance.of([{ n: 3 }, { n: 5 }, { n: 10 }, { percent: 10 }, { percent: 20 }]),
      });
    case 'repeat':
      return over(SERIAL, { kind: 'repeat', is: chance.of(['repeated', 'unique', 'again'] as const) });
    case 'two conditions':
      return over(MARKS, { kind: 'formula', at: 'D2', formula: combination(chance) });
    case 'bands': {
      const cuts = chance.is(0.5) ? [chance.limit()] : chance.limits();
      return over(MARKS, { kind: 'bands', cuts, looks: LOOKS.slice(0, cuts.length + 1) }, cuts.length + 1);
    }
    case 'category': {
      const values = chance.shuffled(STATES).slice(0, 2);
      const looks = Object.fromEntries(values.map((value, at) => [value, itemAt(LOOKS, at)]));
      return over(STATE, { kind: 'category', looks }, 2);
    }
  }
}

function comparison(chance: Chance, fieldAt: (column: number) => string): [column: number, when: When] {
  const is = chance.of(['<', '<=', '>', '>='] as const);
  const field = fieldAt(PLAN);
  const compared = (to: number | string | object | [number, number], how: string): When =>
    ({ kind: 'compare', is: how, to }) as When;
  return chance.of<() => [number, When]>([
    () => [MARKS, compared(chance.limit(), is)],
    () => [LEVEL, compared(chance.of([chance.whole(1, 13), chance.whole(2, 26) / 2]), is)],
    () => [MARKS, compared(chance.limits(), chance.of(['between', 'outside']))],
    () => [STATE, compared(chance.of(STATES), chance.of(['=', '!=']))],
    () => [MARKS, compared({ field, ...chance.of([{}, { times: 0.5 }, { times: 0.8 }, { plus: -50 }]) }, is)],
  ])();
}

const spans = ({ of }: Chance): object[] => [
  { is: 'past' },
  { is: 'future' },
  { is: { last: of([7, 14, 30]), unit: 'day' } },
  { is: { next: of([7, 14, 30]), unit: 'day' } },
  { is: { this: of(['month', 'quarter', 'year']) } },
  { is: { previous: of(['month', 'quarter']) } },
  { is: of(['before', 'after']), to: of(['2025-10-01', '2025-11-01', '2025-12-01', '2026-01-01']) },
];

function combination(chance: Chance): string {
  const [limit, state] = [chance.limit(), chance.of(STATES)];
  return chance.of([
    `=AND(ISNUMBER($D2);$D2<${limit};$C2="${state}")`,
    `=AND($D2>=${limit};$C2="${state}")`,
    `=OR(AND(ISNUMBER($D2);$D2<${Math.min(limit, 30)});$C2="${state}")`,
  ]);
}

/** A table, the rule that somebody has in mind over one of its fields, and what it paints. */
export class PlantedRule {
  readonly evaluation: Evaluation;
  readonly planted: Planted;
  private readonly truth: PaintedCells;
  private readonly chance: Chance;
  private readonly looks: readonly Look[];

  constructor(family: Family, next: () => number) {
    const chance = (this.chance = new Chance(next));
    const sheet = sheetFromTable({ rows: tableOf(chance, chance.of([40, 60, 100])), width: 8 }, { header: true });
    this.evaluation = new Evaluation(sheet, {}, { now: TODAY + 0.5 });
    this.planted = plant(family, chance, (column) => sheet.field(column).id);
    const { column, when, looks } = this.planted;
    this.looks = when.kind === 'category' ? (Object.values(when.looks ?? {}) as Look[]) : LOOKS.slice(0, looks);
    const rule = { id: '', name: '', on: true, settles: false, paints: 'cell', when } as const;
    const look = looks === 1 ? { look: itemAt(this.looks, 0) } : {};
    const running = new RunningRule(
      { ...rule, ...look, reads: { fields: [sheet.field(column).id] } },
      this.evaluation.world,
    );
    this.truth = PaintedCells.byRule(running, this.looks);
  }

  /** Whether there is enough to point at: three cells with each look, and three without one. */
  get isUsable(): boolean {
    const counts = [...this.looks.map((_, look) => this.slotsLike(look).length)];
    return Math.min(...counts) >= 3 && (this.looks.length > 1 || this.slotsLike(-1).length >= 3);
  }

  private get slots(): readonly number[] {
    return this.evaluation.sheet.order.slice(1);
  }

  private lookOf(slot: number): number {
    return this.truth.lookAt({ column: this.planted.column, slot });
  }

  /** Rows with a look; of those without, only filled ones: nobody points at a blank, unless that is what is meant. */
  private slotsLike(look: number): number[] {
    const { column, family } = this.planted;
    const isFilled = (slot: number): boolean => this.evaluation.sheet.column(column).inputAt(slot) !== '';
    return this.slots.filter(
      (slot) => this.lookOf(slot) === look && (look >= 0 || family === 'state' || isFilled(slot)),
    );
  }

  /** The place of the rule, or of one that paints the same, among what is proposed after so many examples; -1 for none. */
  placeAfter(examples: number, choosing: Choosing): number {
    const pointed = this.begin(choosing, examples);
    while (pointed.length < examples) {
      const next = this.nextExample(pointed, choosing);
      if (next === undefined) break;
      pointed.push(next);
    }
    return this.propose(pointed).findIndex(({ painted }) => painted.signature === this.truth.signature);
  }

  /** A cell of each look, and where nobody corrects it, one without a look. */
  private begin(choosing: Choosing, examples: number): number[] {
    const { chance, looks } = this;
    const first = looks.map((_, look) => chance.of(this.slotsLike(look)));
    if (choosing === 'corrected' || (looks.length > 1 && choosing === 'asked')) return first;
    if (choosing === 'asked') return [...first, chance.of(this.slotsLike(-1))];
    if (looks.length > 1)
      return [...first, ...chance.shuffled(this.slots.filter((slot) => !first.includes(slot)))].slice(0, examples);
    const half = examples / 2;
    return [0, -1].flatMap((look) => chance.shuffled(this.slotsLike(look)).slice(0, half));
  }

  private nextExample(pointed: readonly number[], choosing: Choosing): number | undefined {
    const proposals = this.propose(pointed);
    const [best] = proposals;
    const { column, looks } = this.planted;
    if (choosing === 'asked')
      return tellingCell(proposals, { sheet: this.evaluation.sheet, columns: [column], looks })?.slot;
    const rest = this.slots.filter((slot) => !pointed.includes(slot));
    const wrong = best ? rest.filter((slot) => best.painted.lookAt({ column, slot }) !== this.lookOf(slot)) : rest;
    return wrong.length ? this.chance.of(wrong) : undefined;
  }

  private propose(pointed: readonly number[]): Proposal[] {
    const { column } = this.planted;
    const cells = (look: number) =>
      pointed.filter((slot) => this.lookOf(slot) === look).map((slot) => ({ column, slot }));
    return proposeRules(this.evaluation, {
      wanted: this.looks.map((look, at) => ({ look, cells: cells(at) })),
      unwanted: cells(-1),
      paints: 'cell',
    });
  }
}

/** Rules of all families in turn, each usable. */
export function* plantedRules(count: number, next: () => number): Iterable<PlantedRule> {
  for (let made = 0; made < count;) {
    const rule = new PlantedRule(itemAt(FAMILIES, made % FAMILIES.length), next);
    if (!rule.isUsable) continue;
    made++;
    yield rule;
  }
}
