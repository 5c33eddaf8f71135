import Joi from 'joi';
import { TOTAL_FUNCTIONS, type TotalFunction } from '../../core/edit/totals';
import { inDigits } from '../../core/values/counted';
import { EXPORT_FORMATS, type ExportFormatName } from '../../core/exchange/export-formats';
import { LIMITS } from '../../core/exchange/limits';
import { manyItems } from '../many-items';
import type { Endpoint } from './endpoint';

export type RecordValue = string | number | boolean | null;

export const MAX_RECORDS = 5000;
/** Values of all records together. */
const MAX_VALUES = 200_000;
/** Characters of a rule file. */
const MAX_RULES = 1_000_000;
const PAGE = { usual: 100, most: 1000 };

export interface RecordsQuery {
  readonly limit: number;
  readonly cursor?: string;
  readonly where?: readonly string[];
  readonly rule?: string;
  readonly looks: boolean;
}

export interface UpsertBody {
  readonly key?: string | readonly string[];
  readonly records: readonly Readonly<Record<string, RecordValue>>[];
  /** Totals under the records, by the label of their field. */
  readonly totals?: Readonly<Record<string, TotalFunction>>;
}

export interface UpsertAnswer {
  readonly sequence: number;
  readonly inserted: number;
  readonly updated: number;
  readonly unchanged: number;
}

export interface EvaluateBody {
  readonly data: readonly Readonly<Record<string, RecordValue>>[];
  readonly rules: object;
  readonly now?: string;
  readonly zone?: string;
  readonly dates?: 'dmy' | 'mdy';
}

/** UTF-16 code units of a value. */
const MAX_TEXT = LIMITS.cellText;
const value = Joi.alternatives().try(
  Joi.string().allow('').max(MAX_TEXT),
  Joi.number(),
  Joi.boolean(),
  Joi.any().valid(null),
);
const record = Joi.object()
  .pattern(/^/, value)
  .description('Values by label. Text is read as it would be typed: 2026-03-08 is a date, 12 % a number.');
const isValue = (value: unknown): boolean =>
  value === null ||
  typeof value === 'boolean' ||
  (typeof value === 'number' && Math.abs(value) <= Number.MAX_SAFE_INTEGER) ||
  (typeof value === 'string' && value.length <= MAX_TEXT);

function tooManyValues(records: readonly unknown[]): string | undefined {
  const count = records.reduce<number>(
    (sum, one) => sum + (typeof one === 'object' && one !== null ? Object.keys(one).length : 0),
    0,
  );
  return count > MAX_VALUES
    ? `holds ${inDigits(count)} values; at most ${inDigits(MAX_VALUES)} are taken at once`
    : undefined;
}

/**
 * A body with a list of records, which is checked by hand as there may be many values, and described by the schema that
 * it is the same as.
 */
function withRecords<T>(name: keyof T & string, others: Joi.PartialSchemaMap<T>): Joi.ObjectSchema<T> {
  const checked = manyItems({
    item: record,
    isPlain: (one) => typeof one === 'object' && !Array.isArray(one) && Object.values(one).every(isValue),
    tooMuch: tooManyValues,
  });
  const described = Joi.array().items(record).min(1);
  const bodyWith = (list: Joi.ArraySchema) =>
    Joi.object<T>({ [name]: list.max(MAX_RECORDS).required(), ...others } as Joi.SchemaMap<T>);
  return bodyWith(checked).meta({ described: bodyWith(described) });
}

const count = Joi.number().integer().min(0);
const ruleFile = Joi.object({
  format: Joi.string().valid('auxesis-rules').required(),
  version: Joi.number().valid(1).required(),
  rules: Joi.array().items(Joi.object().unknown()).max(LIMITS.rules).required(),
  looks: Joi.object().pattern(/^/, Joi.object().unknown()),
})
  .unknown()
  .custom((file: object, helpers) =>
    JSON.stringify(file).length > MAX_RULES
      ? helpers.message({
          custom: `{{#label}} is too long: a rule file has at most ${inDigits(MAX_RULES)} characters`,
        })
      : file,
  )
  .description('A rule file, such as an export of “Rules only”');

const finding = Joi.object({
  id: count,
  rule: Joi.string(),
  ruleName: Joi.string(),
  way: Joi.string().valid('entered', 'left'),
  outcome: Joi.string().allow(''),
  record: Joi.string().allow(''),
  label: Joi.string(),
  before: Joi.string().allow(''),
  after: Joi.string().allow(''),
  at: Joi.number().description('Milliseconds of the Unix epoch'),
  by: Joi.string().allow(null),
}).unknown();

const pageLimit = Joi.number()
  .integer()
  .min(1)
  .max(PAGE.most)
  .default(PAGE.usual)
  .description('The most items on a page');
const cursor = Joi.string().max(1000).description('The `next` of the page before');
const IF_NONE_MATCH = {
  'If-None-Match': 'The ETag of an earlier answer. The answer is 304 if nothing has changed since',
};

/** Files that hold no rules. */
export const RULELESS: ReadonlySet<string> = new Set<ExportFormatName>(['csv', 'json']);

/** Everything that programs can ask. */
export const ENDPOINTS = {
  readSheet: {
    id: 'readSheet',
    method: 'get',
    path: '/sheets/{sheet}',
    says: 'Get the sheet: its name, its fields, and how many records and rules it has',
    scope: 'read',
    headers: IF_NONE_MATCH,
    answer: {
      status: 200,
      says: 'The sheet',
      type: 'application/json',
      schema: Joi.object({
        id: Joi.string().required(),
        name: Joi.string().required(),
        sequence: count.required().description('How many changes it has had'),
        records: count.required(),
        rules: count.required(),
        fields: Joi.array().items(
          Joi.object({ label: Joi.string(), unit: Joi.string().allow(null), format: Joi.string().allow(null) }),
        ),
      }),
    },
  },
  readRecords: {
    id: 'readRecords',
    method: 'get',
    path: '/sheets/{sheet}/records',
    says: 'List records, page by page, with their values, their looks and the rules behind them',
    scope: 'read',
    query: Joi.object<RecordsQuery>({
      limit: pageLimit,
      cursor,
      where: Joi.array()
        .items(Joi.string().max(500))
        .single()
        .max(20)
        .description(
          'Conditions that all must hold, such as `Dissolved oxygen<7`: a label, one of = != < <= > >= or ~ (contains), and a value',
        ),
      rule: Joi.string().max(200).description('Only records in which a rule of this name or id gives a look'),
      looks: Joi.boolean().default(true).description('Whether the answer includes looks'),
    }),
    headers: IF_NONE_MATCH,
    answer: {
      status: 200,
      says: 'A page of records',
      type: 'application/json',
      schema: Joi.object({
        sequence: count.required(),
        next: Joi.string().allow(null).required().description('The cursor of the next page; null after the last'),
        records: Joi.array()
          .items(
            Joi.object({
              row: count,
              values: Joi.object().pattern(/^/, value),
              shown: Joi.object().pattern(/^/, Joi.string()),
              looks: Joi.object().pattern(
                /^/,
                Joi.object({ look: Joi.object().unknown(), rules: Joi.array().items(Joi.string()) }),
              ),
            }),
          )
          .required(),
      }),
    },
  },
  upsertRecords: {
    id: 'upsertRecords',
    method: 'put',
    path: '/sheets/{sheet}/records',
    says: 'Add and change records, as one change',
    about:
      'A record with the key of one on the sheet changes that one; the others are added at the end. Without key fields all are added. An empty sheet takes its fields from the labels of the records.',
    scope: 'write',
    headers: {
      'Idempotency-Key':
        'A value of your own for this request. Sent again with the same value within a day, it is done only once',
    },
    body: withRecords<UpsertBody>('records', {
      key: Joi.alternatives()
        .try(Joi.string().max(500), Joi.array().items(Joi.string().max(500)).min(1).max(10))
        .description('The label of the key field, or several'),
      totals: Joi.object()
        .pattern(/^/, Joi.valid(...TOTAL_FUNCTIONS))
        .description('Totals in a row under the records, now and later, by the label of their field'),
    }),
    answer: {
      status: 200,
      says: 'How many records were added and changed',
      type: 'application/json',
      schema: Joi.object({
        sequence: count.required(),
        inserted: count.required(),
        updated: count.required(),
        unchanged: count.required(),
      }),
    },
    example: {
      key: ['Station', 'Day'],
      records: [{ Station: 'Alder Weir', Day: '2026-03-08', 'Dissolved oxygen': 6.4, Turbidity: 12 }],
    },
  },
  readRules: {
    id: 'readRules',
    method: 'get',
    path: '/sheets/{sheet}/rules',
    says: 'Get the rules in order of precedence, as a rule file',
    scope: 'rules',
    headers: IF_NONE_MATCH,
    answer: { status: 200, says: 'A rule file', type: 'application/json', schema: ruleFile },
  },
  replaceRules: {
    id: 'replaceRules',
    method: 'put',
    path: '/sheets/{sheet}/rules',
    says: 'Replace all rules by those of a rule file, as one change',
    scope: 'rules',
    headers: { 'If-Match': 'The ETag of the rules that you read. The answer is 412 if they have changed since' },
    body: ruleFile,
    answer: {
      status: 200,
      says: 'How many rules there are',
      type: 'application/json',
      schema: Joi.object({ sequence: count.required(), rules: count.required() }),
    },
  },
  readFindings: {
    id: 'readFindings',
    method: 'get',
    path: '/sheets/{sheet}/findings',
    says: 'List findings: which cells started or stopped matching a rule, the newest first',
    scope: 'findings',
    query: Joi.object<{ limit: number; cursor?: string; rule?: string }>({
      limit: pageLimit,
      cursor,
      rule: Joi.string().max(64).description('Only findings of the rule with this id'),
    }),
    answer: {
      status: 200,
      says: 'A page of findings',
      type: 'application/json',
      schema: Joi.object({
        findings: Joi.array().items(finding).required(),
        next: Joi.string().allow(null).required(),
      }),
    },
  },
  followFindings: {
    id: 'followFindings',
    method: 'get',
    path: '/sheets/{sheet}/findings/stream',
    says: 'Follow findings as they happen, as server-sent events',
    about:
      'Each event has the name `findings`, a list of findings, and the id of the last one. After a broken connection, send that id as Last-Event-ID to go on from there.',
    scope: 'findings',
    headers: { 'Last-Event-ID': 'The id of the last finding that you received' },
    answer: { status: 200, says: 'A stream of events', type: 'text/event-stream' },
  },
  exportSheet: {
    id: 'exportSheet',
    method: 'get',
    path: '/sheets/{sheet}/export',
    says: 'Export the sheet as a file',
    about: 'CSV and JSON need the scope read. Formats that include the rules need the scope rules as well.',
    scope: 'read',
    query: Joi.object<{ format: ExportFormatName | 'archive'; values: 'shown' | 'typed'; report: boolean }>({
      format: Joi.string()
        .valid(...Object.keys(EXPORT_FORMATS), 'archive')
        .required(),
      values: Joi.string()
        .valid('shown', 'typed')
        .default('shown')
        .description('For CSV: values as shown, or as typed'),
      report: Joi.boolean()
        .default(false)
        .description('Get the report of what the format cannot hold, instead of the file'),
    }),
    answer: { status: 200, says: 'The file', type: 'application/octet-stream' },
  },
  evaluate: {
    id: 'evaluate',
    method: 'post',
    path: '/evaluate',
    says: 'Evaluate rules over records that you send; nothing is stored',
    scope: null,
    body: withRecords<EvaluateBody>('data', {
      rules: ruleFile.required(),
      now: Joi.string().isoDate().description('The time to evaluate at; the present by default'),
      zone: Joi.string().max(64).description('The time zone (IANA) that decides which day is today; UTC by default'),
      dates: Joi.string().valid('dmy', 'mdy').description('How dates such as 8/3/2026 are read'),
    }),
    answer: {
      status: 200,
      says: 'The matches of each rule, and the look of every painted cell',
      type: 'application/json',
      schema: Joi.object({
        rules: Joi.array().items(Joi.object().unknown()).required(),
        cells: Joi.object().pattern(/^/, Joi.object().unknown()).required(),
      }),
    },
    example: {
      data: [
        { Station: 'Alder Weir', Oxygen: 4.9 },
        { Station: 'Birch Ford', Oxygen: 8.1 },
      ],
      rules: {
        format: 'auxesis-rules',
        version: 1,
        rules: [
          {
            id: 'low',
            name: 'Low oxygen',
            on: true,
            settles: false,
            reads: { fields: ['Oxygen'] },
            when: { kind: 'compare', is: '<', to: 5 },
            paints: 'cell',
            look: { fill: '#f7d3c8' },
          },
        ],
      },
    },
  },
} as const satisfies Record<string, Endpoint>;
