import { writeSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { BadInput } from './bad-input';
import { adviseCommand, calculateCommand, convertCommand, evaluateCommand, explainCommand, type Answer } from './commands';
import { VERSION } from './version';

const USAGE = `auxesis: conditional formatting rules over a table, from the command line

  auxesis evaluate DATA RULES          what each rule matches, and the look of every painted cell, as JSON
  auxesis explain  DATA RULES CELL     why one cell (such as C5) looks as it does, as JSON
  auxesis advise   DATA RULES          what there is to say of the rules: gaps, rules never seen, looks hard to read...
  auxesis convert  IN OUT              the same cells as CSV, TSV or JSON, by the ending of OUT
  auxesis calculate FORMULA            what a formula gives, as JSON; --data DATA for its references, --at B2 where it stands

DATA    a CSV or TSV file whose first row is the header, or a JSON array of objects; - reads standard input
RULES   a rule file (JSON, "format": "auxesis-rules"); - reads standard input

Options
  --no-header        the first row is a record; fields are called A, B, C...
  --dates dmy|mdy    read dates such as 8/3/2026, day or month first
  --now TIME         the moment to judge by (ISO 8601) instead of the clock
  --zone NAME        the time zone (IANA) that says which day is today; UTC by default
  --week DAY         the first day of the week; monday by default
  --fail-if RULE     with evaluate: exit code 1 when the rule with this id matches anything
  --help, --version

Exit code 0 when done; 1 by --fail-if; 2 for bad input, with one line on standard error and nothing on standard output.
`;

const OPTIONS = {
  help: { type: 'boolean', short: 'h' },
  version: { type: 'boolean' },
  'no-header': { type: 'boolean' },
  dates: { type: 'string' },
  now: { type: 'string' },
  zone: { type: 'string' },
  week: { type: 'string' },
  data: { type: 'string' },
  at: { type: 'string' },
  'fail-if': { type: 'string' },
} as const;

const COMMANDS = {
  evaluate: { names: ['DATA', 'RULES'], run: evaluateCommand },
  explain: { names: ['DATA', 'RULES', 'CELL'], run: explainCommand },
  advise: { names: ['DATA', 'RULES'], run: adviseCommand },
  convert: { names: ['IN', 'OUT'], run: convertCommand },
  calculate: { names: ['FORMULA'], run: calculateCommand },
} as const;

function main(argv: readonly string[]): Answer {
  const { values, positionals } = readArguments(argv);
  if (values.version) return { text: VERSION, code: 0 };
  const [name, ...given] = positionals;
  if (values.help || name === undefined) return { text: USAGE.trimEnd(), code: 0 };
  if (!Object.hasOwn(COMMANDS, name))
    throw new BadInput('command line', `there is no command "${name}"; expected ${Object.keys(COMMANDS).join(' or ')}`);
  const command = COMMANDS[name as keyof typeof COMMANDS];
  if (given.length !== command.names.length) throw new BadInput('command line', `"${name}" takes ${command.names.join(' ')}; ${given.length} given`);
  const { dates, data, at } = values;
  if (dates !== undefined && dates !== 'dmy' && dates !== 'mdy') throw new BadInput('command line', `--dates is "${dates}"; expected dmy or mdy`);
  return command.run(given, {
    header: !values['no-header'],
    ...readMoment(values),
    ...(dates ? { dates } : {}),
    ...(data === undefined ? {} : { data }),
    ...(at === undefined ? {} : { at }),
    ...(values['fail-if'] === undefined ? {} : { failIf: values['fail-if'] }),
  });
}

const DAYS = ['monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday', 'sunday'];
const MOMENT = /^\d{4}-\d{2}-\d{2}(T\d{2}:\d{2}(:\d{2}(\.\d+)?)?(Z|[+-]\d{2}:\d{2})?)?$/;

function readMoment({ now, zone, week }: { now?: string; zone?: string; week?: string }) {
  if (now !== undefined && !(MOMENT.test(now) && !Number.isNaN(Date.parse(now))))
    throw new BadInput('command line', `--now is "${now}"; expected a time such as 2026-03-08T12:00:00Z`);
  if (zone !== undefined && !isZone(zone)) throw new BadInput('command line', `--zone is "${zone}"; expected a time zone such as Europe/Lisbon`);
  if (week !== undefined && !DAYS.includes(week)) throw new BadInput('command line', `--week is "${week}"; expected ${DAYS.join(', ')}`);
  return {
    nowMs: now === undefined ? Date.now() : momentOf(now),
    ...(zone ? { zone } : {}),
    ...(week ? { firstWeekday: DAYS.indexOf(week) } : {}),
  };
}

/** A time without an offset counts as UTC. */
const momentOf = (now: string): number => Date.parse(/T.*(Z|[+-]\d{2}:\d{2})$/.test(now) || !now.includes('T') ? now : `${now}Z`);

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
    throw new BadInput('command line', (error as Error).message.split('. ')[0]!, { cause: error });
  }
}

/** Writes without setting up a stream, which takes as long as a small evaluation; what a full pipe does not take goes by the stream. */
function print(text: string): void {
  const bytes = Buffer.from(text);
  let written = 0;
  try {
    while (written < bytes.length) written += writeSync(1, bytes, written);
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    if (code === 'EPIPE') return;
    if (code !== 'EAGAIN') throw error;
    process.stdout.on('error', () => {});
    process.stdout.write(bytes.subarray(written));
  }
}

try {
  const { text, code } = main(process.argv.slice(2));
  if (text !== '') print(`${text}\n`);
  process.exitCode = code;
} catch (error) {
  if (!(error instanceof BadInput)) throw error;
  process.stderr.write(`auxesis: ${error.message}\n`);
  process.exitCode = 2;
}
