import { readFileSync } from 'node:fs';
import { quantile } from 'd3-array';
import { describe, expect, test } from 'vitest';
import { Evaluation } from '../../src/core/rules/evaluation';
import { reportEvaluation } from '../../src/core/rules/evaluate-report';
import type { When } from '../../src/core/rules/kinds/registry';
import { quantileOfSorted } from '../../src/core/stats/quantile';
import { sheetFromTable } from '../../src/core/sheet/sheet-from-table';
import { testDatabase } from '../server/test-database';

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
const cars = JSON.parse(readFileSync(new URL('../../node_modules/vega-datasets/data/cars.json', import.meta.url), 'utf8')) as Car[];

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
    { id: 'r', name: 'R', on: true, settles: false, reads: { fields: [horsepower] }, when, paints: 'cell', look: { bold: true } },
  ]);
  return reportEvaluation(evaluation).rules[0]!.matched.map((address) => Number(address.slice(1)) - 2);
}

const places = async (query: Promise<{ at: number }[]>) => (await query).map(({ at }) => at);

describe('conditions agree with SQL', () => {
  test('compare', async () => {
    expect(matched({ kind: 'compare', is: '>=', to: 150 })).toEqual(await places(sql`select at from car where horsepower >= 150 order by at`));
    expect(matched({ kind: 'compare', is: 'between', to: [90, 100] })).toEqual(
      await places(sql`select at from car where horsepower between 90 and 100 order by at`),
    );
    expect(matched({ kind: 'compare', is: '!=', to: 150 })).toEqual(await places(sql`select at from car where horsepower <> 150 order by at`));
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
      await places(sql`select at from car where horsepower > (select avg(horsepower) + 2 * ${sql(deviation)}(horsepower) from car) order by at`),
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
    evaluation.setRules([{ id: 'r', name: 'R', on: true, settles: false, reads: { fields: [horsepower] }, when, paints: 'cell' }]);
    // width_bucket numbers its buckets as our bands: 0 below the first threshold, and a threshold belongs to the bucket above it.
    const buckets = await sql<
      { at: number; bucket: number }[]
    >`select at, width_bucket(horsepower, array[75, 100, 150]::float8[]) as bucket from car where horsepower is not null order by at`;
    expect(reportEvaluation(evaluation).rules[0]!.outcomes).toEqual(Object.fromEntries(buckets.map(({ at, bucket }) => [`B${at + 2}`, bucket])));
  });
});

test('percentiles are those of percentile_cont and of d3-array', async () => {
  const values = cars.flatMap((car) => car.Horsepower ?? []).sort((a, b) => a - b);
  for (const p of [0, 0.1, 0.25, 1 / 3, 0.5, 0.75, 0.9, 1]) {
    const [row] = await sql<{ value: number }[]>`select percentile_cont(${p}) within group (order by horsepower) as value from car`;
    expect(quantileOfSorted(values, p)).toBeCloseTo(row!.value, 10);
    expect(quantileOfSorted(values, p)).toBeCloseTo(quantile(values, p)!, 10);
  }
});
