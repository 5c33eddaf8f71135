// How the time of every reader and text function grows with the length of what it is given: 10,000, 100,000 and
// 1,000,000 letters of shapes that are slow for careless expressions. Linear growth is 10x a step; beyond 30x a line is
// marked.
import { makeFormula, FormulaShapes, valueAt } from '../../src/core/formula/run/make-formula';
import { newCursor } from '../../src/core/formula/values/place';
import { FAMILIES } from '../../src/core/formula/functions/function-table';
import { parseFormula } from '../../src/core/formula/syntax/parse-formula';
import { readCriterion } from '../../src/core/formula/values/criterion';
import { WORK_LIMITS, WorkMeter } from '../../src/core/formula/values/work-meter';
import { seriesFrom } from '../../src/core/edit/series';
import { editDistance } from '../../src/core/rules/compile/edit-distance';
import { sheetFromTable } from '../../src/core/sheet/sheet-from-table';
import { formatValue } from '../../src/core/values/format-value';
import { foldText } from '../../src/core/values/fold-text';
import { readDate } from '../../src/core/values/dates/read-date';
import { readInput } from '../../src/core/values/read-input';
import { readNumber } from '../../src/core/values/read-number';
import { compareTexts } from '../../src/core/formula/values/formula-value';

const LENGTHS = [10_000, 100_000, 1_000_000] as const;
const SLOW_GROWTH = 30;
/** A step that takes longer than this is the last one. */
const TOO_LONG_MS = 4000;

/** Texts that are slow where a reader goes back over what it has read. */
const SHAPES: Readonly<Record<string, (length: number) => string>> = {
  'spaces within': (length) => `a${' '.repeat(length)}b`,
  spaces: (length) => ' '.repeat(length),
  'a currency sign and spaces': (length) => `$${' '.repeat(length)}\n5`,
  'spaces before a currency sign': (length) => `5${' '.repeat(length)}x€`,
  digits: (length) => `${'1'.repeat(length)}x`,
  'digits in groups': (length) => `${'1,111'.repeat(length / 5)}x`,
  'one letter': (length) => 'a'.repeat(length),
  'words and signs': (length) => 'Ab, '.repeat(length / 4),
  'letters with marks': (length) => 'e\u0301'.repeat(length / 2),
  'pairs of code units': (length) => '😀'.repeat(length / 2),
};

const READERS: Readonly<Record<string, (text: string) => unknown>> = {
  readInput: (text) => readInput(text),
  readNumber: (text) => readNumber(text),
  readDate: (text) => readDate(text, 'dmy'),
  foldText: (text) => foldText(text),
  compareTexts: (text) => compareTexts(text, `${text}a`),
  'editDistance, at most 2': (text) => editDistance(text, `${text}a`, 2),
  readCriterion: (text) => readCriterion(text)(`${text}a`),
  'readCriterion with *': (text) => readCriterion(`*${text}*b*`)(`${text}a`),
  parseFormula: (text) => parseFormula(`=${text}`),
  'a number format': (text) => formatValue({ kind: 'number', number: 5 }, text),
  'a series': (text) => seriesFrom([text])(1),
};

/** Each function that takes texts, called with a text for each of its parameters. */
const TEXT_FUNCTIONS = FAMILIES.texts.map(({ name, parameters }) => ({
  name,
  calls: [
    `=${name}(${parameters.map((_, at) => (at === 0 ? 'A1' : '1')).join(';')})`,
    ...(parameters.length > 1 ? [`=${name}(${parameters.map((_, at) => (at < 2 ? 'A1' : '1')).join(';')})`] : []),
    ...(parameters.length > 1
      ? [`=${name}(${parameters.map((_, at) => (at === 0 ? '"ab*c"' : at === 1 ? 'A1' : '1')).join(';')})`]
      : []),
  ],
}));

function caller(formula: string): (text: string) => unknown {
  return (text) => {
    const sheet = sheetFromTable({ rows: [[`'${text}`]], width: 1 }, { header: false });
    const limits = { ...WORK_LIMITS, formula: Infinity };
    const context = {
      sheet,
      now: 0,
      work: new WorkMeter(limits),
      findSheet: () => undefined,
      findName: () => undefined,
    };
    const made = makeFormula(formula, { context, shapes: new FormulaShapes() });
    return valueAt(made, { ...newCursor(context), slot: sheet.order[0]! });
  };
}

/** The least of three runs, as the collector of garbage adds to the others. */
function leastTime(work: () => void): number {
  const times = [1, 2, 3].map(() => {
    const began = performance.now();
    work();
    return performance.now() - began;
  });
  return Math.min(...times);
}

function measure(name: string, work: (text: string) => unknown): void {
  let worst = { growth: 0, shape: '', times: [] as number[] };
  for (const [shape, make] of Object.entries(SHAPES)) {
    work(make(1000));
    const times: number[] = [];
    for (const length of LENGTHS) {
      const text = make(length);
      times.push(leastTime(() => work(text)));
      if (times.at(-1)! > TOO_LONG_MS) break;
    }
    // Below a tenth of a millisecond the clock says little.
    const growth = Math.max(...times.slice(1).map((time, at) => (time < 20 ? 0 : time / Math.max(0.1, times[at]!))));
    if (growth > worst.growth || (worst.growth === 0 && times.at(-1)! > (worst.times.at(-1) ?? 0)))
      worst = { growth, shape, times };
  }
  const shown = worst.times.map((time) => `${time.toFixed(1)} ms`).join(', ');
  console.log(`  ${worst.growth > SLOW_GROWTH ? 'GROWS ' : ''}${name}: ${shown} (${worst.shape})`);
}

console.log(
  `growth with length: ${LENGTHS.map((length) => length.toLocaleString('en')).join(', ')} letters, the shape that grows most`,
);
for (const [name, work] of Object.entries(READERS)) measure(name, work);
for (const { calls } of TEXT_FUNCTIONS) for (const call of calls) measure(call, caller(call));
