import { messageOf } from '../core/values/error-message';
import { readRuleSet, type RuleSet } from '../core/rules/shape/read-rule-set';
import { BadInput } from './bad-input';
import { placeOf, readText } from './read-bytes';

/** Reads a rule file. Throws a BadInput that names the place in it. */
export function readRules(path: string): RuleSet {
  const place = placeOf(path);
  const text = readText(path);
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch (error) {
    throw new BadInput(place, `not JSON: ${messageOf(error)}`, { cause: error });
  }
  const read = readRuleSet(json);
  if ('message' in read) throw new BadInput(place, read.message);
  return read.rules;
}
