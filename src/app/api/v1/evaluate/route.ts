import { ENDPOINTS, type EvaluateBody } from '../../../../protocol/programs/endpoints';
import { painter } from '../../../../server/painter/painter';
import { Refusal } from '../../../../server/refusal';
import { answerProgram } from '../answer-program';
import { refusalText } from '../../../../texts/refusal-text';

export const dynamic = 'force-dynamic';

export function POST(request: Request): Promise<Response> {
  return answerProgram<never, EvaluateBody>(
    ENDPOINTS.evaluate,
    { request },
    async ({ body: { data, rules, now, zone, dates } }) => {
      if (zone !== undefined && !isZone(zone))
        throw new Refusal('bad-request', refusalText('zoneZoneExpectedTime', { zone }));
      const options = {
        header: true,
        nowMs: now === undefined ? Date.now() : Date.parse(now),
        ...(zone ? { zone } : {}),
        ...(dates ? { dates } : {}),
      };
      const report = await painter().evaluate({ data, rules, options });
      return new Response(report, { headers: { 'content-type': 'application/json' } });
    },
  );
}

function isZone(name: string): boolean {
  try {
    return new Intl.DateTimeFormat('en', { timeZone: name }).resolvedOptions().timeZone !== '';
  } catch {
    return false;
  }
}
