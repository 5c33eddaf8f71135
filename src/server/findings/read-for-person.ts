import { database } from '../database';
import { readMuch } from '../replicas';
import { readFindings, type ReaderFindingQuery } from '../sql/finding';
import { readFollowedRules } from '../sql/follow';

/** Findings for a person, with the rules that they follow: of one sheet, or of all that they work on. */
export const readForPerson = (query: ReaderFindingQuery) =>
  readMuch(database(), async (sql) => {
    const [findings, rules] = await Promise.all([readFindings(sql, query), readFollowedRules(sql, query)]);
    return { findings, rules };
  });
