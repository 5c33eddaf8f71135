import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { Calculation } from '../../src/core/formula/calculate/calculation';
import { cellValueOf, FormulaShapes, makeFormula, valueAt } from '../../src/core/formula/run/make-formula';
import { newCursor } from '../../src/core/formula/values/place';
import type { Sheet } from '../../src/core/sheet/sheet';
import { sheetFromTable } from '../../src/core/sheet/sheet-from-table';
import { shownText } from '../../src/core/values/shown-text';
import { testDatabase } from '../support/test-database';
import { WorkMeter } from '../../src/core/formula/values/work-meter';

const empty = sheetFromTable({ rows: [['a']], width: 1 }, { header: true });

/** What a formula gives, as a number where it is one, else as shown. */
function value(formula: string, sheet: Sheet = empty): number | string {
  const context = {
    sheet,
    now: 46_089.5,
    findSheet: () => undefined,
    findName: () => undefined,
    work: new WorkMeter(),
  };
  new Calculation(sheet, context);
  const found = cellValueOf(
    valueAt(makeFormula(formula, { context, shapes: new FormulaShapes() }), {
      ...newCursor(context),
      slot: sheet.order[1] ?? 0,
    }),
  );
  return found.kind === 'number' ? found.number : found.kind === 'date' ? found.serial : shownText(found, null);
}

/** Calculated to as many decimals as the source prints. */
const expectPrinted = (formula: string, printed: string): void => {
  const decimals = printed.split('.')[1]?.length ?? 0;
  expect(Number(value(formula)).toFixed(decimals), formula).toBe(printed);
};

// Factors of annuities as tables of compound interest print them (for example in White, Case, Pratt and Agee,
// "Principles of engineering economic analysis", appendix; from memory).
test.each([
  ['=PV(5%;10;-1)', '7.7217'],
  ['=PV(8%;20;-1)', '9.8181'],
  ['=PV(10%;5;-1)', '3.7908'],
  ['=FV(5%;10;-1)', '12.5779'],
  ['=FV(8%;20;-1)', '45.7620'],
  ['=PMT(10%;5;-1)', '0.2638'],
  ['=FV(6%;10;0;-1)', '1.7908'],
  ['=PV(12%;8;0;-1)', '0.4039'],
])('annuity table: %s is %s', expectPrinted);

// Worked examples of loans and depreciation that handbooks of spreadsheet functions print (common practice; from
// memory).
test.each([
  ['=PMT(8%/12;10;10000)', '-1037.03'],
  ['=PMT(6%/12;360;100000)', '-599.55'],
  ['=PMT(6%/12;216;0;50000)', '-129.08'],
  ['=IPMT(10%/12;1;36;8000)', '-66.67'],
  ['=IPMT(10%;3;3;8000)', '-292.45'],
  ['=PPMT(10%/12;1;24;2000)', '-75.62'],
  ['=PPMT(8%;10;10;200000)', '-27598.05'],
  ['=CUMIPMT(9%/12;360;125000;13;24;0)', '-11135.23'],
  ['=FV(6%/12;10;-200;-500;1)', '2581.40'],
  ['=PV(8%/12;240;500)', '-59777.15'],
  ['=NPER(12%/12;-100;-1000;10000;1)', '59.67'],
  ['=RATE(48;-200;8000)*12', '0.0924'],
  ['=NPV(10%;-10000;3000;4200;6800)', '1188.44'],
  ['=IRR({-70000;12000;15000;18000;21000})', '-0.021'],
  ['=IRR({-70000;12000;15000;18000;21000;26000})', '0.087'],
  ['=SLN(30000;7500;10)', '2250'],
  ['=SYD(30000;7500;10;1)', '4090.91'],
  ['=SYD(30000;7500;10;10)', '409.09'],
  ['=DDB(2400;300;10;1;2)', '480'],
  ['=DDB(2400;300;10;10)', '22.12'],
])('loan: %s is %s', expectPrinted);

test('a rate that is found pays what was asked', () => {
  for (const [periods, rate] of [
    [12, 0.001],
    [360, 0.005],
    [48, 0.2],
    [10, 1e-7],
  ] as const)
    expect(Number(value(`=RATE(${periods};PMT(${rate};${periods};1000);1000)`))).toBeCloseTo(rate, 9);
});

describe('NIST Statistical Reference Datasets, univariate (certified values; from memory)', () => {
  const column = (values: readonly (number | string)[]) =>
    sheetFromTable({ rows: [['x'], ...values.map((one) => [String(one)])], width: 1 }, { header: true });
  /** Around a middle: NumAcc2 to NumAcc4 alternate between a tenth below and a tenth above. */
  const around = (middle: string, low: string, high: string) => [
    middle,
    ...Array.from({ length: 1000 }, (_, at) => (at % 2 ? high : low)),
  ];
  test.each([
    { name: 'NumAcc1', values: [10000001, 10000003, 10000002], mean: 10000002, deviation: 1 },
    { name: 'NumAcc2', values: around('1.2', '1.1', '1.3'), mean: 1.2, deviation: 0.1 },
    { name: 'NumAcc3', values: around('1000000.2', '1000000.1', '1000000.3'), mean: 1000000.2, deviation: 0.1 },
    { name: 'NumAcc4', values: around('10000000.2', '10000000.1', '10000000.3'), mean: 10000000.2, deviation: 0.1 },
  ])('$name', ({ values, mean, deviation }) => {
    const sheet = column(values);
    // To the last digit or two of a double, as the certified values ask for.
    expect(Number(value('=AVERAGE(A:A)', sheet)) / mean).toBeCloseTo(1, 14);
    // The data of NumAcc3 and 4 as doubles are off by up to 1e-9 themselves.
    expect(Number(value('=STDEV(A:A)', sheet)) / deviation).toBeCloseTo(1, mean > 1e6 ? 7 : 13);
  });
});

// Examples of ISO/IEC 26300-4 (OpenFormula), chapter 6, as they are remembered.
test.each([
  ['=ATAN2(1;1)*4-PI()', 0],
  ['=INT(-1.1)', -2],
  ['=MOD(10;3)', 1],
  ['=MOD(-10;3)', 2],
  ['=MOD(10;-3)', -2],
  ['=EVEN(6.3)', 8],
  ['=EVEN(-0.3)', -2],
  ['=ODD(5.5)', 7],
  ['=ODD(0)', 1],
  ['=ROUND(10.1;0)', 10],
  ['=ROUND(-9.8;0)', -10],
  ['=ROUND(10.5;0)', 11],
  ['=ROUND(1/3;2)', 0.33],
  ['=ROUND(1234.567;-1)', 1230],
  ['=ROUND(2.675;2)', 2.68],
  ['=ROUNDUP(77.01;0)', 78],
  ['=ROUNDDOWN(-45.67;1)', -45.6],
  ['=TRUNC(-10.2)', -10],
  ['=FACT(5)', 120],
  ['=LEFT("Hello";2)', 'He'],
  ['=RIGHT("Hello";2)', 'lo'],
  ['=MID("123456789";5;3)', '567'],
  ['=LEN("Hi There")', 8],
  ['=PROPER("hello there")', 'Hello There'],
  ['=REPLACE("123456789";5;3;"Q")', '1234Q89'],
  ['=SUBSTITUTE("121212";"2";"ab";2)', '121ab12'],
  ['=REPT("XY";3)', 'XYXYXY'],
  ['=TRIM("  HI  there ")', 'HI there'],
  ['=FIND("b";"abcabc";3)', 5],
  ['=SEARCH("C?B";"abcxbc")', 3],
  ['=EXACT("A";"a")', 'FALSE'],
  ['="Hello"="hello"', 'TRUE'],
  ['=T("HI")&N("x")', 'HI0'],
  ['=IF(FALSE;7;8)', 8],
  ['=IF(TRUE)', 'TRUE'],
  ['=CHOOSE(3;"Apple";"Orange";"Grape";"Perry")', 'Grape'],
  ['=AND(FALSE;1/0)', '#DIV/0!'],
  ['=IFERROR(NA();"x")', 'x'],
  ['=ISERR(NA())', 'FALSE'],
  ['=ISNONTEXT(1)', 'TRUE'],
  ['=COUNT(1;2;"7";"x";1/0)', 3],
  ['=COUNT(1/0)', 0],
  ['=COUNTA(1;"x";1/0)', 3],
  ['=SUM(TRUE;"2";3)', 6],
  ['=SUM({1;"2";TRUE})', 1],
  ['=MEDIAN(10;20;30;40)', 25],
  ['=LARGE({1;5;3};2)', 3],
  ['=RANK(3;{1;5;3})', 2],
  ['=SUMPRODUCT({1;2|3;4};{2;2|2;2})', 20],
  ['=MATCH("b*";{"abc";"bcd"};0)', 2],
  ['=MATCH(25;{10;20;30};1)', 2],
  ['=VLOOKUP(2;{1;"a"|2;"b"};2;FALSE)', 'b'],
  ['=HLOOKUP(5;{1;4;9|"a";"b";"c"};2)', 'b'],
  ['=INDEX({1;2|3;4};2;1)', 3],
  ['=ADDRESS(4;2)&ADDRESS(4;2;4)', '$B$4B4'],
  ['=DATE(2005;1;31)-DATE(2005;1;1)', 30],
  ['=DATE(2004;2;29)-DATE(2004;2;28)', 1],
  ['=DATE(2003;2;29)=DATE(2003;3;1)', 'TRUE'],
  ['=DATE(2005;1;0)=DATE(2004;12;31)', 'TRUE'],
  ['=HOUR(5/24)', 5],
  ['=MINUTE(1/(24*60))', 1],
  ['=SECOND(1/(24*60*60)*2)', 2],
  ['=TIME(11;125;144)*60*60*24', 47244],
  ['=WEEKDAY(DATE(2006;5;21))', 1],
  ['=WEEKDAY(DATE(2005;1;1);2)', 6],
  ['=YEAR(DATE(1904;1;1))', 1904],
  ['=DAYS(DATE(1993;4;16);DATE(1993;9;25))', -162],
  ['=DATEDIF(DATE(1990;2;15);DATE(1993;9;15);"ym")', 7],
  ['=NETWORKDAYS(DATE(2001;1;1);DATE(2001;1;31))', 23],
  ['=WORKDAY(DATE(2001;1;31);1)=DATE(2001;2;1)', 'TRUE'],
  ['=TEXT(12.34567;"#,##0.00")', '12.35'],
  ['=VALUE("6")', 6],
  ['=XOR(TRUE;TRUE;TRUE)', 'TRUE'],
  ['=0^0', 1],
  ['=(-8)^(1/3)', '#NUM!'],
  ['=NOSUCH(1)', '#NAME?'],
  ['=1+"x"', '#VALUE!'],
  ['="a"<TRUE', 'TRUE'],
] as const)('OpenFormula: %s is %s', (formula, expected) => {
  if (typeof expected === 'number') expect(value(formula)).toBeCloseTo(expected, 10);
  else expect(value(formula)).toBe(expected);
});

describe('PostgreSQL comes to the same', async () => {
  const cars = (
    JSON.parse(readFileSync(new URL('../../node_modules/vega-datasets/data/cars.json', import.meta.url), 'utf8')) as {
      Name: string;
      Origin: string;
      Horsepower: number | null;
      Acceleration: number;
    }[]
  ).filter((car) => car.Horsepower !== null);
  const sheet = sheetFromTable(
    {
      rows: [
        ['Origin', 'Power', 'Seconds'],
        ...cars.map((car) => [car.Origin, String(car.Horsepower), String(car.Acceleration)]),
      ],
      width: 3,
    },
    { header: true },
  );
  const { sql } = await testDatabase('formulas');
  await sql`create table car (origin text, power float8, seconds float8)`;
  await sql`insert into car select * from unnest(${cars.map((car) => car.Origin)}::text[], ${cars.map((car) => car.Horsepower)}::float8[], ${cars.map((car) => car.Acceleration)}::float8[])`;
  const asked = async (expression: string): Promise<number> =>
    Number((await sql.unsafe<{ value: string }[]>(`select ${expression} as value from car`))[0]!.value);

  test.each([
    ['=AVERAGE(Power)', 'avg(power)'],
    ['=STDEV(Power)', 'stddev_samp(power)'],
    ['=STDEVP(Power)', 'stddev_pop(power)'],
    ['=VAR(Power)', 'var_samp(power)'],
    ['=VARP(Power)', 'var_pop(power)'],
    ['=MEDIAN(Power)', 'percentile_cont(0.5) within group (order by power)'],
    ['=PERCENTILE(Power;0.37)', 'percentile_cont(0.37) within group (order by power)'],
    ['=QUARTILE(Power;3)', 'percentile_cont(0.75) within group (order by power)'],
    ['=MODE(Power)', 'mode() within group (order by power)'],
    ['=CORREL(Power;Seconds)', 'corr(power, seconds)'],
    ['=SLOPE(Power;Seconds)', 'regr_slope(power, seconds)'],
    ['=INTERCEPT(Power;Seconds)', 'regr_intercept(power, seconds)'],
    ['=COUNTIF(Origin;"usa")', "count(*) filter (where origin = 'USA')"],
    ['=COUNTIFS(Origin;"e*";Power;">=100")', "count(*) filter (where origin like 'E%' and power >= 100)"],
    ['=SUMIF(Origin;"<>USA";Power)', "sum(power) filter (where origin <> 'USA')"],
    ['=AVERAGEIFS(Power;Origin;"Japan";Seconds;"<16")', "avg(power) filter (where origin = 'Japan' and seconds < 16)"],
    ['=LARGE(Power;10)', '(array_agg(power order by power desc))[10]'],
    ['=RANK(150;Power)', '1 + count(*) filter (where power > 150)'],
    ['=SUMPRODUCT((Origin="USA")*(Power>150)*Seconds)', "sum(seconds) filter (where origin = 'USA' and power > 150)"],
    ['=DSUM(A:C;"Power";A1:A2)', 'sum(power) filter (where origin = (select origin from car limit 1))'],
  ])('%s', async (formula, expression) =>
    expect(Number(value(formula, sheet))).toBeCloseTo(await asked(expression), 9),
  );

  test('dates over 200 years: weeks of ISO 8601, weekdays, ends of months, months later', async () => {
    const rows = await sql<{ day: string; week: number; weekday: number; later: string; last: string }[]>`
      select day::date::text as day, extract(week from day)::int as week, extract(isodow from day)::int as weekday,
        (day + interval '1 month' * (n % 37 - 18))::date::text as later, (date_trunc('month', day) + interval '1 month - 1 day')::date::text as last
      from generate_series(0, 1500) as n, lateral (select timestamp '1900-03-01' + interval '1 day' * (n * 47) as day) as days`;
    rows.forEach(({ day, week, weekday, later, last }, n) => {
      const date = `DATE(${day.split('-').map(Number).join(';')})`;
      const iso = (formula: string) => value(`=TEXT(${formula};"yyyy-MM-dd")`);
      expect([value(`=ISOWEEKNUM(${date})`), value(`=WEEKDAY(${date};2)`)], day).toEqual([week, weekday]);
      expect([iso(`EDATE(${date};${(n % 37) - 18})`), iso(`EOMONTH(${date};0)`)], day).toEqual([later, last]);
    });
  });
});
