import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { makeSheet } from '../../../../test/support/arbitrary-sheet';
import { Calculation } from '../calculate/calculation';
import { cellValueOf, FormulaShapes, makeFormula, valueAt } from '../run/make-formula';
import { newCursor } from '../values/place';
import { arityOf, FAMILIES, FUNCTIONS, signatureOf } from './function-table';
import { WorkMeter } from '../values/work-meter';

// The Small Group of ISO/IEC 26300-4, 2.3.2, as it is remembered.
const SMALL_GROUP =
  'ABS ACOS AND ASIN ATAN ATAN2 AVERAGE AVERAGEIF CHOOSE COLUMNS COS COUNT COUNTA COUNTBLANK COUNTIF DATE DAVERAGE DAY DCOUNT DCOUNTA DDB DEGREES DGET DMAX DMIN DPRODUCT DSTDEV DSTDEVP DSUM DVAR DVARP EVEN EXACT EXP FACT FALSE FIND FV HLOOKUP HOUR IF INDEX INT IRR ISBLANK ISERR ISERROR ISLOGICAL ISNA ISNONTEXT ISNUMBER ISTEXT LEFT LEN LN LOG LOG10 LOWER MATCH MAX MID MIN MINUTE MOD MONTH N NA NOT NOW NPER NPV ODD OR PI PMT POWER PRODUCT PROPER PV RADIANS RATE REPLACE REPT RIGHT ROUND ROWS SECOND SIN SLN SQRT STDEV STDEVP SUBSTITUTE SUM SUMIF SYD T TAN TIME TODAY TRIM TRUE TRUNC UPPER VALUE VAR VARP VLOOKUP WEEKDAY YEAR';
const MEDIUM_GROUP =
  'SUMIFS COUNTIFS AVERAGEIFS IFERROR IFNA XOR MEDIAN MODE PERCENTILE QUARTILE RANK LARGE SMALL ROUNDUP ROUNDDOWN CEILING FLOOR WEEKNUM ISOWEEKNUM EDATE EOMONTH DATEDIF DAYS NETWORKDAYS WORKDAY TEXT TEXTJOIN CONCATENATE SEARCH INDIRECT OFFSET ADDRESS ROW COLUMN SUMPRODUCT CORREL SLOPE INTERCEPT IPMT PPMT CUMIPMT';

test('the whole Small Group is there, and what is wanted of the Medium Group', () => {
  expect(`${SMALL_GROUP} ${MEDIUM_GROUP}`.split(' ').filter((name) => !FUNCTIONS.has(name))).toEqual([]);
});

test('no name stands twice', () => expect(FUNCTIONS.size).toBe(Object.values(FAMILIES).flat().length));

describe.each([...FUNCTIONS.values()].map((spec) => [spec.name, spec] as const))('%s', (_, spec) => {
  test('tells what it gives, and names its arguments', () => {
    expect(spec.says).toMatch(/^[a-z#].{1,}[^.]$/);
    expect(signatureOf(spec)).toMatch(/^[A-Z0-9]+\([^)]*\)$/);
    // Arguments that may be left out stand after those that may not.
    expect(spec.parameters.findIndex(({ absent }) => absent)).toSatisfy(
      (at: number) => at < 0 || at >= arityOf(spec).least,
    );
  });
});

const argument = fc.constantFrom(
  '0',
  '1',
  '-1',
  '2.5',
  '1E300',
  '""',
  '"x"',
  '"2026-03-08"',
  'TRUE',
  '#N/A',
  'A2',
  'B3:C5',
  'C:C',
  'A1:C9',
  '{1;2|3;"a"}',
  'One',
  '1/0',
  'DATE(2026;3;8)',
  '',
);

test('no function throws, whatever it is given', () => {
  const sheet = makeSheet();
  const context = {
    sheet,
    now: 46_089.5,
    findSheet: () => undefined,
    findName: () => undefined,
    work: new WorkMeter(),
  };
  new Calculation(sheet, context);
  const shapes = new FormulaShapes();
  fc.assert(
    fc.property(fc.constantFrom(...FUNCTIONS.keys()), fc.array(argument, { maxLength: 6 }), (name, args) => {
      const formula = makeFormula(`=${name}(${args.join(';')})`, { context, shapes });
      const value = cellValueOf(valueAt(formula, { ...newCursor(context), column: 1, slot: sheet.slotAt(2) }));
      if (value.kind === 'number') expect(Number.isFinite(value.number)).toBe(true);
      if (value.kind === 'date') expect(Number.isFinite(value.serial)).toBe(true);
    }),
    { numRuns: 4000 },
  );
});

// Found by the test above: where a rate has no end, everything is worth nothing now.
test('a rate of return from a guess beyond reason is still the rate of return', () => {
  const sheet = makeSheet();
  const context = { sheet, now: 0, findSheet: () => undefined, findName: () => undefined, work: new WorkMeter() };
  const rate = (guess: string) =>
    valueAt(makeFormula(`=IRR({-100;60;60};${guess})`, { context, shapes: new FormulaShapes() }), newCursor(context));
  // 100 = 60/(1+r) + 60/(1+r)²: 1 + r = (3 + √69)/10.
  for (const guess of ['0.1', '1E300', '1E9', '-0.5'])
    expect(rate(guess)).toBeCloseTo((3 + Math.sqrt(69)) / 10 - 1, 12);
});

test('a formula of many parts, and a text of a million letters, take their time and no more', () => {
  const sheet = makeSheet(['x'.repeat(1_000_000)]);
  const context = { sheet, now: 0, findSheet: () => undefined, findName: () => undefined, work: new WorkMeter() };
  const value = (text: string) =>
    cellValueOf(
      valueAt(makeFormula(text, { context, shapes: new FormulaShapes() }), {
        ...newCursor(context),
        slot: sheet.slotAt(1),
      }),
    );
  expect(value(`=${'1+'.repeat(1000)}1`)).toEqual({ kind: 'number', number: 1001 });
  expect(value(`=${'1+'.repeat(4000)}1`)).toEqual({ kind: 'error', error: '#NAME?' });
  expect(value(`=1${'%'.repeat(5000)}`)).toEqual({ kind: 'error', error: '#NAME?' });
  expect(value(`=${'('.repeat(64)}1${')'.repeat(64)}`)).toEqual({ kind: 'number', number: 1 });
  expect(value('=LEN(A2)')).toEqual({ kind: 'number', number: 1_000_000 });
  expect(value('=A2&A2')).toEqual({ kind: 'error', error: '#VALUE!' });
  expect(value(`=COUNTIF(A2:A3;"${'*x'.repeat(60)}y")`)).toEqual({ kind: 'number', number: 0 });
});
