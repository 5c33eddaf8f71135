import { BadFile } from '../../../../core/exchange/bad-file';
import { tableOfRecords } from '../../../../core/exchange/json/json-records';
import { readRuleSet } from '../../../../core/rules/read-rule-set';
import { ENDPOINTS, type EvaluateBody } from '../../../../protocol/programs/endpoints';
import { painter } from '../../../../server/painter/painter';
import { Refusal } from '../../../../server/refusal';
import { answerProgram } from '../answer-program';

export const dynamic = 'force-dynamic';

export function POST(request: Request): Promise<Response> {
  return answerProgram<never, EvaluateBody>(ENDPOINTS.evaluate, { request }, async ({ body: { data, rules: file, now, zone, dates } }) => {
    const read = readRuleSet(file);
    if ('message' in read) throw new Refusal('bad-request', read.message);
    if (zone !== undefined && !isZone(zone)) throw new Refusal('bad-request', `zone is "${zone}"; expected a time zone such as Europe/Lisbon`);
    const options = { header: true, nowMs: now === undefined ? Date.now() : Date.parse(now), ...(zone ? { zone } : {}), ...(dates ? { dates } : {}) };
    try {
      const table = tableOfRecords(data.map((record, at) => ({ record, place: `data[${at}]` })));
      return Response.json(await painter().evaluate({ table, rules: read.rules, options }));
    } catch (error) {
      if (error instanceof BadFile) throw new Refusal('bad-request', error.told);
      throw error;
    }
  });
}

function isZone(name: string): boolean {
  try {
    return new Intl.DateTimeFormat('en', { timeZone: name }).resolvedOptions().timeZone !== '';
  } catch {
    return false;
  }
}
