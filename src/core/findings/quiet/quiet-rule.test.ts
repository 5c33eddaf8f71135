import fc from 'fast-check';
import { expect, test } from 'vitest';
import { makeSheet } from '../../../../test/support/arbitrary-sheet';
import { Evaluation } from '../../rules/evaluate/evaluation';
import type { Quiet } from '../../rules/shape/quiet';
import type { Rule } from '../../rules/shape/rule';
import { RuleWatch, type Crossing } from '../rule-watch';
import type { Spell } from '../past/spells';
import { quietSpells } from './quiet-spells';

const MINUTE_MS = 60_000;
const LIMIT = 5;
const MINUTES = 60;

interface Course {
  /** By minute: what is typed into which of two cells then. */
  readonly typed: readonly { readonly minute: number; readonly cell: 0 | 1; readonly value: number }[];
  readonly quiet: Quiet;
  /** A minute at which the keeper falls over and goes on from what it kept. */
  readonly restart: number;
}

const minutes = fc.option(
  fc.integer({ min: 1, max: 20 }).map((n) => ({ n, unit: 'minute' as const })),
  { nil: undefined },
);

const anyQuiet = fc
  .record({ hold: minutes, rearm: fc.option(fc.integer({ min: 6, max: 8 }), { nil: undefined }), every: minutes })
  .map(({ hold, rearm, every }): Quiet => ({
    ...(hold && { hold }),
    ...(rearm !== undefined && { rearm }),
    ...(every && { every }),
  }));

const anyCourse: fc.Arbitrary<Course> = fc.record({
  typed: fc
    .uniqueArray(
      fc.record({
        minute: fc.integer({ min: 1, max: MINUTES - 1 }),
        cell: fc.constantFrom<0 | 1>(0, 1),
        value: fc.integer({ min: 2, max: 10 }),
      }),
      { maxLength: 16, selector: ({ minute }) => minute },
    )
    .map((typed) => typed.toSorted((one, other) => one.minute - other.minute)),
  quiet: anyQuiet,
  restart: fc.integer({ min: 0, max: MINUTES }),
});

const START = [7, 3] as const;

/** What is reported, found by going through the minutes one by one: the words of the guide as a plain loop. */
function byMinutes({ typed, quiet }: Course): string[] {
  const told: string[] = [];
  const { hold, rearm = LIMIT, every } = quiet;
  for (const cell of [0, 1] as const) {
    let value: number = START[cell];
    let isIn = value < LIMIT;
    let [since, isTold, lastTold] = [0, isIn, -Infinity];
    for (let minute = 1; minute <= MINUTES; minute++) {
      const tell = () => {
        const isHeld = minute - since >= (hold?.n ?? 0);
        if (!isIn || isTold || !isHeld || minute - lastTold < (every?.n ?? 0)) return;
        told.push(`${minute} r${cell} entered`);
        isTold = true;
        lastTold = minute;
      };
      // A cell that leaves in the minute in which it would have been reported is reported first.
      tell();
      const change = typed.find((each) => each.minute === minute && each.cell === cell);
      if (!change) continue;
      value = change.value;
      const was = isIn;
      isIn = value < LIMIT || (isIn && value < rearm);
      if (isIn === was) continue;
      if (isTold) told.push(`${minute} r${cell} left`);
      isTold = false;
      since = minute;
      tell();
    }
  }
  return told.sort();
}

const ruleOf = (quiet: Quiet): Rule => ({
  id: 'low',
  name: 'Low',
  on: true,
  settles: false,
  reads: { fields: ['f1'] },
  when: { kind: 'compare', is: '<', to: LIMIT },
  paints: 'cell',
  look: { fill: '#aaaaaa' },
  ...(Object.keys(quiet).length > 0 && { quiet }),
});

/** The same as the keeper finds it, from edits and the clock; and the times that each cell has the look. */
function byWatch({ typed, quiet, restart }: Course) {
  const sheet = makeSheet(START.map(String));
  const evaluation = new Evaluation(sheet, {}, { now: 46_000 });
  evaluation.setRules([ruleOf(quiet)]);
  let watch = new RuleWatch(evaluation);
  let kept = '{}';
  const keep = (now: number) => {
    const taken = watch.takeQuiet(now);
    if (taken) kept = JSON.stringify(taken.known);
  };
  keep(0);
  const told: string[] = [];
  const note = (at: number, crossings: readonly Crossing[]) =>
    told.push(...crossings.map(({ row, way }) => `${at / MINUTE_MS} ${row} ${way}`));
  for (let minute = 1; minute <= MINUTES; minute++) {
    const at = minute * MINUTE_MS;
    for (const { at: then, crossings } of watch.due(at)) note(then, crossings);
    const change = typed.find((each) => each.minute === minute);
    if (change) {
      const cells = [{ row: `r${change.cell}`, field: 'f1', input: String(change.value) }];
      evaluation.follow(sheet.apply({ kind: 'set-cells', cells }).effects);
      note(at, watch.crossings(at));
    }
    keep(at);
    if (minute !== restart) continue;
    watch = new RuleWatch(evaluation);
    watch.restart(JSON.parse(kept) as Parameters<RuleWatch['restart']>[0]);
  }
  return told.sort();
}

/** When each cell had a value below a limit, in minutes. */
function spellsBelow(limit: number, { typed }: Course): Spell[] {
  return ([0, 1] as const).flatMap((cell) => {
    const values = [{ minute: 0, value: START[cell] as number }, ...typed.filter((each) => each.cell === cell)];
    const spells: Spell[] = [];
    for (const { minute, value } of values) {
      const open = spells.at(-1);
      const isOpen = open?.to === Infinity;
      if (value < limit && !isOpen)
        spells.push({ row: `r${cell}`, field: 'f1', outcome: 0, from: minute, to: Infinity });
      if (value >= limit && isOpen) spells.splice(-1, 1, { ...open, to: minute });
    }
    return spells;
  });
}

test('findings of a quiet rule are those of a loop over the minutes, also where the keeper falls over', () => {
  fc.assert(
    fc.property(anyCourse, (course) => {
      expect(byWatch(course)).toEqual(byMinutes(course));
    }),
    { numRuns: 1000 },
  );
});

test('the past of a quiet rule is what would have been reported', () => {
  fc.assert(
    fc.property(anyCourse, (course) => {
      const { hold, rearm, every } = course.quiet;
      const spells = quietSpells(spellsBelow(LIMIT, course), {
        stays: rearm === undefined ? null : spellsBelow(rearm, course),
        limits: { hold: hold?.n ?? 0, every: every?.n ?? 0 },
        begins: 0,
        now: MINUTES,
      });
      const told = spells.flatMap(({ row, from, to }) => [
        ...(from > 0 ? [`${from} ${row} entered`] : []),
        ...(to === Infinity ? [] : [`${to} ${row} left`]),
      ]);
      expect(told.sort()).toEqual(byMinutes(course));
    }),
    { numRuns: 1000 },
  );
});
