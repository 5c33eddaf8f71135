import { readFileSync } from 'node:fs';
import { quantile } from 'd3-array';
import { generateNKeysBetween } from 'fractional-indexing';
import { describe, expect, test } from 'vitest';
import { operationsOf } from '../../src/core/edit/registry';
import type { SortKey } from '../../src/core/edit/sort';
import { Sheet } from '../../src/core/sheet/sheet';
import { Evaluation } from '../../src/core/rules/evaluate/evaluation';
import { reportEvaluation } from '../../src/core/rules/evaluate/evaluate-report';
import type { When } from '../../src/core/rules/kinds/registry';
import { quantileOfSorted } from '../../src/core/stats/quantile';
import { sheetFromTable } from '../../src/core/sheet/sheet-from-table';
import { testDatabase } from '../support/test-database';

/*
 * Rules over an open data set against PostgreSQL's own arithmetic. Data: "cars" of vega-datasets (406 records, with
 * gaps), originally from the StatLib library of Carnegie Mellon University.
 */
interface Car {
  readonly Name: string;
  readonly Origin: string;
  readonly Horsepower: number | null;
  readonly Acceleration: number;
}
const cars = JSON.parse(
  readFileSync(new URL('../../node_modules/vega-datasets/data/cars.json', import.meta.url), 'utf8'),
) as Car[];

const { sql } = await testDatabase('vega_tables');
await sql`create table car (at int, origin text, horsepower float8, acceleration float8)`;
await sql`insert into car select * from unnest(${cars.map((_, at) => at)}::int[], ${cars.map((car) => car.Origin)}::text[],
  ${cars.map((car) => car.Horsepower)}::float8[], ${cars.map((car) => car.Acceleration)}::float8[])`;

const rows = [
  ['Origin', 'Horsepower', 'Acceleration'],
  ...cars.map((car) => [car.Origin, car.Horsepower === null ? '' : String(car.Horsepower), String(car.Acceleration)]),
];
const sheet = sheetFromTable({ rows, width: 3 }, { header: true });
const [origin, horsepower, acceleration] = sheet.fields.map((field) => field.id) as [string, string, string];

/** Places (from 0) of the cars that a condition on horsepower matches. */
function matched(when: When): number[] {
  const evaluation = new Evaluation(sheet, {});
  evaluation.setRules([
    {
      id: 'r',
      name: 'R',
      on: true,
      settles: false,
      reads: { fields: [horsepower] },
      when,
      paints: 'cell',
      look: { bold: true },
    },
  ]);
  return reportEvaluation(evaluation).rules[0]!.matched.map((address) => Number(address.slice(1)) - 2);
}

const places = async (query: Promise<{ at: number }[]>) => (await query).map(({ at }) => at);

describe('conditions agree with SQL', () => {
  test('compare', async () => {
    expect(matched({ kind: 'compare', is: '>=', to: 150 })).toEqual(
      await places(sql`select at from car where horsepower >= 150 order by at`),
    );
    expect(matched({ kind: 'compare', is: 'between', to: [90, 100] })).toEqual(
      await places(sql`select at from car where horsepower between 90 and 100 order by at`),
    );
    expect(matched({ kind: 'compare', is: '!=', to: 150 })).toEqual(
      await places(sql`select at from car where horsepower <> 150 order by at`),
    );
  });

  test('compare with another field', async () => {
    expect(matched({ kind: 'compare', is: '>', to: { field: acceleration, times: 10, plus: -20 } })).toEqual(
      await places(sql`select at from car where horsepower > acceleration * 10 - 20 order by at`),
    );
  });

  test('above the average of all', async () => {
    expect(matched({ kind: 'average', is: 'above' })).toEqual(
      await places(sql`select at from car where horsepower > (select avg(horsepower) from car) order by at`),
    );
  });

  test.each([
    ['sample', 'stddev_samp'],
    ['population', 'stddev_pop'],
  ] as const)('two %s deviations above the average', async (spread, deviation) => {
    expect(matched({ kind: 'average', is: 'above', deviations: 2, spread })).toEqual(
      await places(
        sql`select at from car where horsepower > (select avg(horsepower) + 2 * ${sql(deviation)}(horsepower) from car) order by at`,
      ),
    );
  });

  test('below the average of its origin', async () => {
    expect(matched({ kind: 'average', is: 'below', per: { group: origin } })).toEqual(
      await places(
        sql`select at from car join (select origin, avg(horsepower) as mean from car group by origin) as mean using (origin) where horsepower < mean order by at`,
      ),
    );
  });

  test('bands', async () => {
    const evaluation = new Evaluation(sheet, {});
    const when: When = { kind: 'bands', cuts: [75, 100, 150], looks: [null, null, null, null] };
    evaluation.setRules([
      { id: 'r', name: 'R', on: true, settles: false, reads: { fields: [horsepower] }, when, paints: 'cell' },
    ]);
    // width_bucket numbers its buckets as our bands: 0 below the first threshold, and a threshold belongs to the bucket
    // above it.
    const buckets = await sql<
      { at: number; bucket: number }[]
    >`select at, width_bucket(horsepower, array[75, 100, 150]::float8[]) as bucket from car where horsepower is not null order by at`;
    expect(reportEvaluation(evaluation).rules[0]!.outcomes).toEqual(
      Object.fromEntries(buckets.map(({ at, bucket }) => [`B${at + 2}`, bucket])),
    );
  });
});

describe('ranks, repeats, texts and days agree with SQL', () => {
  test.each([
    ['top', 10, 'desc'],
    ['bottom', 7, 'asc'],
  ] as const)('%s %d, ties at the edge included', async (is, n, order) => {
    const ranked = sql`select at, rank() over (order by horsepower ${sql.unsafe(order)}) as place from car where horsepower is not null`;
    expect(matched({ kind: 'rank', is, n })).toEqual(
      await places(sql`select at from (${ranked}) as ranked where place <= ${n} order by at`),
    );
  });

  test('top 10 % of each origin', async () => {
    const ranked = sql`select at, rank() over (partition by origin order by horsepower desc) as place, count(*) over (partition by origin) as n
      from car where horsepower is not null`;
    expect(matched({ kind: 'rank', is: 'top', percent: 10, per: { group: origin } })).toEqual(
      await places(sql`select at from (${ranked}) as ranked where place <= greatest(1, floor(n * 0.1)) order by at`),
    );
  });

  test.each([
    ['repeated', 'n > 1'],
    ['unique', 'n = 1'],
    ['first', 'n > 1 and nth = 1'],
    ['again', 'nth > 1'],
  ] as const)('%s values, alone and by two fields', async (is, holds) => {
    const counted = (fields: string) =>
      sql`select at, count(*) over (partition by ${sql.unsafe(fields)}) as n, row_number() over (partition by ${sql.unsafe(fields)} order by at) as nth
        from car where horsepower is not null`;
    expect(matched({ kind: 'repeat', is })).toEqual(
      await places(sql`select at from (${counted('horsepower')}) as counted where ${sql.unsafe(holds)} order by at`),
    );
    // Rows without a horsepower have no other part either here: origin and acceleration are always filled.
    expect(matched({ kind: 'repeat', is, by: [origin, acceleration] }).length).toBe(
      (
        await sql`select at from (select at, count(*) over (partition by origin, acceleration) as n,
          row_number() over (partition by origin, acceleration order by at) as nth from car) as counted where ${sql.unsafe(holds)}`
      ).length,
    );
  });

  test('texts that contain a word, whatever their case', async () => {
    const texts = sheetFromTable({ rows: [['Name'], ...cars.map((car) => [car.Name])], width: 1 }, { header: true });
    const evaluation = new Evaluation(texts, {});
    const when: When = { kind: 'text', is: 'contains', any: ['FORD', 'wagon'] };
    evaluation.setRules([
      { id: 'r', name: 'R', on: true, settles: false, reads: { fields: [texts.fields[0]!.id] }, when, paints: 'cell' },
    ]);
    const found = await sql<
      { at: number }[]
    >`select at from unnest(${cars.map((car) => car.Name)}::text[]) with ordinality as names (name, at)
      where name ilike '%ford%' or name ilike '%wagon%' order by at`;
    expect(reportEvaluation(evaluation).rules[0]!.matched).toEqual(found.map(({ at }) => `A${Number(at) + 1}`));
  });

  // "seattle-weather" of vega-datasets: four years of days (NOAA, National Climatic Data Center).
  const days = readFileSync(
    new URL('../../node_modules/vega-datasets/data/seattle-weather.csv', import.meta.url),
    'utf8',
  )
    .trim()
    .split('\n')
    .slice(1)
    .map((line) => line.slice(0, 10));
  const calendar = sheetFromTable({ rows: [['Day'], ...days.map((day) => [day])], width: 1 }, { header: true });
  test.each([
    [{ last: 7, unit: 'day' }, 'day between today - 6 and today'],
    [{ next: 2, unit: 'week' }, 'day between today and today + 13'],
    [{ last: 1, unit: 'month' }, "day > today - interval '1 month' and day <= today"],
    [{ this: 'week' }, "date_trunc('week', day) = date_trunc('week', today)"],
    [{ previous: 'month' }, "date_trunc('month', day) = date_trunc('month', today) - interval '1 month'"],
    [{ following: 'quarter' }, "date_trunc('quarter', day) = date_trunc('quarter', today) + interval '3 months'"],
    [{ this: 'year' }, "date_trunc('year', day) = date_trunc('year', today)"],
    ['past', 'day < today'],
    ['tomorrow', 'day = today + 1'],
  ] as const)('days: %j', async (is, holds) => {
    for (const today of ['2014-03-31', '2013-12-29', '2012-02-29']) {
      const [row] = await sql<{ serial: number }[]>`select ${today}::date - date '1899-12-30' as serial`;
      const evaluation = new Evaluation(calendar, {}, { now: row!.serial + 0.9 });
      evaluation.setRules([
        {
          id: 'r',
          name: 'R',
          on: true,
          settles: false,
          reads: { fields: [calendar.fields[0]!.id] },
          when: { kind: 'date', is } as When,
          paints: 'cell',
        },
      ]);
      const found = await sql<{ at: number }[]>`select at from (select day::date as day, at, ${today}::date as today
        from unnest(${days}::text[]) with ordinality as listed (day, at)) as days where ${sql.unsafe(holds)} order by at`;
      expect(reportEvaluation(evaluation).rules[0]!.matched).toEqual(found.map(({ at }) => `A${Number(at) + 1}`));
    }
  });
});

test('percentiles are those of percentile_cont and of d3-array', async () => {
  const values = cars.flatMap((car) => car.Horsepower ?? []).sort((a, b) => a - b);
  for (const p of [0, 0.1, 0.25, 1 / 3, 0.5, 0.75, 0.9, 1]) {
    const [row] = await sql<
      { value: number }[]
    >`select percentile_cont(${p}) within group (order by horsepower) as value from car`;
    expect(quantileOfSorted(values, p)).toBeCloseTo(row!.value, 10);
    expect(quantileOfSorted(values, p)).toBeCloseTo(quantile(values, p)!, 10);
  }
});

describe('sorting agrees with SQL', () => {
  const sorted = (by: readonly SortKey[]): number[] => {
    const { sheet: copy, at } = carsCopy();
    for (const operation of operationsOf(copy, { do: 'sort-rows', by }, { newId: () => '' })) copy.apply(operation);
    return copy.order.slice(1).map((slot) => at.get(copy.rowId(slot))!);
  };
  test('numbers with gaps, which are last either way, and ties in their old order', async () => {
    expect(sorted([{ column: 1, order: 'rising' }])).toEqual(
      await places(sql`select at from car order by horsepower asc nulls last, at`),
    );
    expect(sorted([{ column: 1, order: 'falling' }])).toEqual(
      await places(sql`select at from car order by horsepower desc nulls last, at`),
    );
  });
  test('by a text, then by a number', async () => {
    expect(
      sorted([
        { column: 0, order: 'falling' },
        { column: 2, order: 'rising' },
      ]),
    ).toEqual(await places(sql`select at from car order by origin collate "C" desc, acceleration asc, at`));
  });
});

/** The cars in a sheet of their own, with keys by which they can be sorted. */
function carsCopy() {
  const keys = generateNKeysBetween(null, null, rows.length);
  const copy = new Sheet(sheet.fields);
  const at = new Map<string, number>();
  rows.forEach((inputs, position) => {
    const slot = copy.appendRow({
      id: `car ${position}`,
      key: keys[position]!,
      role: position === 0 ? 'header' : 'record',
    });
    inputs.forEach((input, column) => copy.columns[column]!.set(slot, input, position === 0));
    at.set(`car ${position}`, position - 1);
  });
  return { sheet: copy, at };
}
