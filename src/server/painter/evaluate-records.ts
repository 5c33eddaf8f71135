import { BadFile } from '../../core/exchange/bad-file';
import { tableOfRecords } from '../../core/exchange/json/json-records';
import { evaluateData, type DataOptions } from '../../core/rules/evaluate/evaluate-data';
import { reportEvaluation } from '../../core/rules/evaluate/evaluate-report';
import { readRuleSet } from '../../core/rules/shape/read-rule-set';

/** Records that a program sends with a rule file to judge them by. */
export interface SentRecords {
  readonly data: readonly object[];
  readonly rules: object;
  readonly options: DataOptions;
}

/** The report of an evaluation (see evaluate-report.ts) as JSON, or why there is none. */
export type Evaluated = { readonly report: string } | { readonly refused: string };

/** Judges records by a rule file; all of it where it holds up nobody: in a worker process. */
export function evaluateRecords({ data, rules: file, options }: SentRecords): Evaluated {
  const read = readRuleSet(file);
  if ('message' in read) return { refused: read.message };
  try {
    const table = tableOfRecords(data.map((record, at) => ({ record, place: `data[${at}]` })));
    return { report: JSON.stringify(reportEvaluation(evaluateData(table, read.rules, options))) };
  } catch (error) {
    if (error instanceof BadFile) return { refused: error.told };
    throw error;
  }
}
