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

const pageLimit = Joi.number().integer().min(1).max(PAGE.most).default(PAGE.usual).description('How many at most');
const cursor = Joi.string().max(1000).description('Where the page before ended: its `next`');
const IF_NONE_MATCH = { 'If-None-Match': 'The ETag of the answer before: 304 where nothing is different' };

/** Files that hold no rules. */
export const RULELESS: ReadonlySet<string> = new Set<ExportFormatName>(['csv', 'json']);

/** Everything that programs can ask. */
export const ENDPOINTS = {
  readSheet: {
    id: 'readSheet',
    method: 'get',
    path: '/sheets/{sheet}',
    says: 'What the sheet is: its name, fields, and how many records and rules it has',
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
    says: 'Records, page by page, with what they show and why they look so',
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
    says: 'Enters records, as one change',
    about:
      'A record whose key fields meet one that is there changes it; the others are added at the end. Without key fields all are added. A blank sheet takes their labels.',
    scope: 'write',
    headers: { 'Idempotency-Key': 'The same for a request that is sent again: it is taken once. Kept for a day' },
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
      says: 'What became of them',
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
    says: 'The rules in order of precedence, as a rule file',
    scope: 'rules',
    headers: IF_NONE_MATCH,
    answer: { status: 200, says: 'A rule file', type: 'application/json', schema: ruleFile },
  },
  replaceRules: {
    id: 'replaceRules',
    method: 'put',
    path: '/sheets/{sheet}/rules',
    says: 'Puts the rules of a rule file in the place of those that are there, as one change',
    scope: 'rules',
    headers: { 'If-Match': 'The ETag of the rules that were read: 412 where they have been changed since' },
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
    says: 'What entered and left each rule, the newest first',
    scope: 'findings',
    query: Joi.object<{ limit: number; cursor?: string; rule?: string }>({
      limit: pageLimit,
      cursor,
      rule: Joi.string().max(64).description('Of the rule with this id'),
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
    says: 'Findings as they come, as server-sent events',
    about:
      'Each event is called `findings`, holds a list of them, and has the id of the last: a connection that broke goes on with Last-Event-ID.',
    scope: 'findings',
    headers: { 'Last-Event-ID': 'The id of the last finding that was heard' },
    answer: { status: 200, says: 'A stream of events', type: 'text/event-stream' },
  },
  exportSheet: {
    id: 'exportSheet',
    method: 'get',
    path: '/sheets/{sheet}/export',
    says: 'The sheet as a file',
    about:
      'Separated values and records need no more than to read; what holds the rules too needs the scope rules besides.',
    scope: 'read',
    query: Joi.object<{ format: ExportFormatName | 'archive'; values: 'shown' | 'typed'; report: boolean }>({
      format: Joi.string()
        .valid(...Object.keys(EXPORT_FORMATS), 'archive')
        .required(),
      values: Joi.string()
        .valid('shown', 'typed')
        .default('shown')
        .description('For csv: as they are shown, or as they were typed'),
      report: Joi.boolean()
        .default(false)
        .description('What the file does not say as the sheet does, in the place of the file'),
    }),
    answer: { status: 200, says: 'The file', type: 'application/octet-stream' },
  },
  evaluate: {
    id: 'evaluate',
    method: 'post',
    path: '/evaluate',
    says: 'Judges records by rules; nothing is kept',
    scope: null,
    body: withRecords<EvaluateBody>('data', {
      rules: ruleFile.required(),
      now: Joi.string().isoDate().description('The moment to judge by; now where absent'),
      zone: Joi.string().max(64).description('The time zone (IANA) that says which day is today; UTC where absent'),
      dates: Joi.string().valid('dmy', 'mdy').description('How dates such as 8/3/2026 are read'),
    }),
    answer: {
      status: 200,
      says: 'What each rule matches, and the look of every painted cell',
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
