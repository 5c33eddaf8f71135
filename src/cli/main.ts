import { writeSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { hasKey } from '../core/values/typed-keys';
import { messageOf, codeOf } from '../core/values/error-message';
import { itemAt } from '../core/values/item-at';
import { SEPARATORS, type Separator } from '../core/exchange/csv/csv-rows';
import type { Answer } from './answer';
import { BadInput } from './bad-input';
import {
  adviseCommand,
  calculateCommand,
  convertCommand,
  evaluateCommand,
  explainCommand,
  loggerCommand,
  pushCommand,
} from './commands';
import { sqlCommand } from './linked';
import { proposeCommand } from './propose';
import { VERSION } from './version';

const USAGE = `auxesis: conditional formatting rules over a table, from the command line

  auxesis evaluate DATA [RULES]        what each rule matches, and the look of every painted cell, as JSON
  auxesis explain  DATA [RULES] CELL   why one cell (such as C5) looks as it does, as JSON
  auxesis advise   DATA [RULES]        what there is to say of the rules: gaps, rules never seen, looks hard to read...
  auxesis propose  DATA                rules that fit examples, best first, as JSON: --paint B2,B10 --not B5
  auxesis convert  IN OUT              the same cells by the ending of OUT: csv, tsv, json; with rules xlsx, ods, html, auxesis;
                                       the rules alone: rules.json
  auxesis calculate FORMULA            what a formula gives, as JSON; --data DATA for its references, --at B2 where it stands
  auxesis sql      RULES               the rules as a view of a table of PostgreSQL: --table T, with --database or --columns
  auxesis push     FILE                enters the records of a file into a sheet of a server, as JSON what became of them
  auxesis logger                       stands in for field devices: sends readings for the demo's stations to a server

DATA    with evaluate also a database, postgres://USER@HOST/NAME with --table T, of which the rules' cells are counted;
        a CSV or TSV file whose first row is the header, a JSON array of objects, JSON Lines, a workbook of
        ISO/IEC 29500 or ISO/IEC 26300 or an archive, whose own rules count where no RULES are given; - reads standard input
RULES   a rule file (JSON, "format": "auxesis-rules"); - reads standard input

Options
  --no-header        the first row is a record; fields are called A, B, C...
  --dates dmy|mdy    read dates such as 8/3/2026, day or month first
  --separator SIGN   what stands between values: , ; | or tab; by the file's ending where absent
  --decimal SIGN     what divides decimals: . by default, or ,
  --now TIME         the moment to judge by (ISO 8601) instead of the clock
  --zone NAME        the time zone (IANA) that says which day is today; UTC by default
  --week DAY         the first day of the week; monday by default
  --sheet NAME       which sheet of a workbook; with push and logger, which sheet of the server: its address ends with it
  --rules RULES      with convert: the rules that go into the workbook or archive
  --key LABEL        with push: the field whose value says which record it is; several make one key together;
                     with sql and evaluate: the columns that order the rows of a table without a primary key
  --total LABEL=sum  with push: a total under the records: sum, average, count, least, greatest or median
  --url ADDRESS      with push and logger: where the app is; http://127.0.0.1:4380 by default
  --token TOKEN      with push and logger, or in AUXESIS_TOKEN: made under Share, Programs
  --way WAY          with logger: steady, bursts, drift, faults or mixed
  --every, --for S   with logger: seconds from one reading to the next; seconds after which it ends by itself
  --paint CELLS      with propose: cells or ranges that are to be painted, B2,B10,C2:C5; whole rows, 2:2,7:7, paint records;
                     several, each with a name for its look, alarm=B2,B10, propose bands and categories
  --not CELLS        with propose: cells that are not to be painted
  --field LABEL      with propose: the field that the rules are to read
  --table T          with sql and evaluate: a table or view of a database; fields of rules are its columns
  --database URL     with sql: the database, from which the types of its columns are read
  --columns LIST     with sql: or the columns themselves, such as Station:text,Oxygen:float8,Day:date
  --as NAME          with sql: the name of the view; T_rules by default
  --fail-if RULE     with evaluate: exit code 1 when the rule with this id matches anything
  --help, --version

Exit code 0 when done; 1 by --fail-if; 2 for bad input, with one line on standard error and nothing on standard output.
`;

const OPTIONS = {
  help: { type: 'boolean', short: 'h' },
  version: { type: 'boolean' },
  'no-header': { type: 'boolean' },
  dates: { type: 'string' },
  separator: { type: 'string' },
  decimal: { type: 'string' },
  now: { type: 'string' },
  zone: { type: 'string' },
  week: { type: 'string' },
  data: { type: 'string' },
  at: { type: 'string' },
  'fail-if': { type: 'string' },
  paint: { type: 'string', multiple: true },
  not: { type: 'string', multiple: true },
  field: { type: 'string' },
  sheet: { type: 'string' },
  rules: { type: 'string' },
  key: { type: 'string', multiple: true },
  total: { type: 'string', multiple: true },
  url: { type: 'string' },
  table: { type: 'string' },
  database: { type: 'string' },
  columns: { type: 'string' },
  as: { type: 'string' },
  token: { type: 'string' },
  way: { type: 'string' },
  every: { type: 'string' },
  for: { type: 'string' },
} as const;

const COMMANDS = {
  evaluate: { names: ['DATA', '[RULES]'], run: evaluateCommand },
  explain: { names: ['DATA', '[RULES]', 'CELL'], run: explainCommand },
  advise: { names: ['DATA', '[RULES]'], run: adviseCommand },
  propose: { names: ['DATA'], run: proposeCommand },
  convert: { names: ['IN', 'OUT'], run: convertCommand },
  calculate: { names: ['FORMULA'], run: calculateCommand },
  sql: { names: ['RULES'], run: sqlCommand },
  push: { names: ['FILE'], run: pushCommand },
  logger: { names: [], run: loggerCommand },
} as const;

function main(argv: readonly string[]): Answer | Promise<Answer> {
  const { values, positionals } = readArguments(argv);
  if (values.version) return { text: VERSION, code: 0 };
  const [name, ...given] = positionals;
  if (values.help) return { text: USAGE.trimEnd(), code: 0 };
  if (name === undefined) throw new NoCommand();
  if (!hasKey(COMMANDS, name))
    throw new BadInput('command line', `there is no command "${name}"; expected ${Object.keys(COMMANDS).join(' or ')}`);
  const command = COMMANDS[name];
  const {
    dates,
    separator,
    decimal,
    now,
    zone,
    week,
    'no-header': noHeader,
    'fail-if': failIf,
    help: _,
    version: __,
    ...rest
  } = values;
  if (dates !== undefined && dates !== 'dmy' && dates !== 'mdy')
    throw new BadInput('command line', `--dates is "${dates}"; expected dmy or mdy`);
  if (decimal !== undefined && decimal !== '.' && decimal !== ',')
    throw new BadInput('command line', `--decimal is "${decimal}"; expected . or ,`);
  return command.run(placed(name, command.names, given), {
    header: !noHeader,
    ...readMoment({
      ...(now === undefined ? {} : { now }),
      ...(zone === undefined ? {} : { zone }),
      ...(week === undefined ? {} : { week }),
    }),
    ...(dates ? { dates } : {}),
    ...(decimal ? { decimal } : {}),
    ...(separator === undefined ? {} : { separator: readSeparator(separator) }),
    ...(failIf === undefined ? {} : { failIf }),
    ...rest,
  });
}

function readSeparator(text: string): Separator {
  const found = text === 'tab' ? '\t' : SEPARATORS.find((separator) => separator === text);
  if (found === undefined) throw new BadInput('command line', `--separator is "${text}"; expected one of , ; | tab`);
  return found;
}

/** The positional arguments; optional ones may be undefined. */
function placed(command: string, names: readonly string[], given: readonly string[]): (string | undefined)[] {
  const optional = names.findIndex((name) => name.startsWith('['));
  if (given.length === names.length) return [...given];
  if (optional >= 0 && given.length === names.length - 1)
    return [...given.slice(0, optional), undefined, ...given.slice(optional)];
  throw new BadInput('command line', `"${command}" takes ${names.join(' ') || 'no files'}; ${given.length} given`);
}

const DAYS = ['monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday', 'sunday'];
const MOMENT = /^\d{4}-\d{2}-\d{2}(T\d{2}:\d{2}(:\d{2}(\.\d+)?)?(Z|[+-]\d{2}:\d{2})?)?$/;

function readMoment({ now, zone, week }: { now?: string; zone?: string; week?: string }) {
  if (now !== undefined && !(MOMENT.test(now) && !Number.isNaN(Date.parse(now))))
    throw new BadInput('command line', `--now is "${now}"; expected a time such as 2026-03-08T12:00:00Z`);
  if (zone !== undefined && !isZone(zone))
    throw new BadInput('command line', `--zone is "${zone}"; expected a time zone such as Europe/Lisbon`);
  if (week !== undefined && !DAYS.includes(week))
    throw new BadInput('command line', `--week is "${week}"; expected ${DAYS.join(', ')}`);
  return {
    nowMs: now === undefined ? Date.now() : momentOf(now),
    ...(zone ? { zone } : {}),
    ...(week ? { firstWeekday: DAYS.indexOf(week) } : {}),
  };
}

/** A time without an offset counts as UTC. */
const momentOf = (now: string): number =>
  Date.parse(/T.*(Z|[+-]\d{2}:\d{2})$/.test(now) || !now.includes('T') ? now : `${now}Z`);

function isZone(name: string): boolean {
  try {
    return new Intl.DateTimeFormat('en', { timeZone: name }).resolvedOptions().timeZone !== '';
  } catch {
    return false;
  }
}

function readArguments(argv: readonly string[]) {
  try {
    return parseArgs({ args: [...argv], options: OPTIONS, allowPositionals: true });
  } catch (error) {
    throw new BadInput('command line', itemAt(messageOf(error).split('. '), 0), { cause: error });
  }
}

/**
 * Writes without setting up a stream, which takes as long as a small evaluation; what a full pipe does not take goes
 * through the stream.
 */
function print(text: string): void {
  const bytes = Buffer.from(text);
  let written = 0;
  try {
    while (written < bytes.length) written += writeSync(1, bytes, written);
  } catch (error) {
    const code = codeOf(error);
    if (code === 'EPIPE') return;
    if (code !== 'EAGAIN') throw error;
    process.stdout.on('error', () => {});
    process.stdout.write(bytes.subarray(written));
  }
}

function end({ text, code }: Answer): void {
  if (text !== '') print(`${text}\n`);
  process.exitCode = code;
}

/** Called without a command: usage, as an error. */
class NoCommand extends Error {}

function fail(error: unknown): void {
  if (error instanceof NoCommand) {
    process.stderr.write(`${USAGE.trimEnd()}\n`);
    process.exitCode = 2;
    return;
  }
  if (!(error instanceof BadInput)) throw error;
  process.stderr.write(`auxesis: ${error.message}\n`);
  process.exitCode = 2;
}

try {
  const answer = main(process.argv.slice(2));
  if (answer instanceof Promise) answer.then(end).catch(fail);
  else end(answer);
} catch (error) {
  fail(error);
}
