import { profileRule, readValues } from '../../explain/profile-rule';
import type { Evaluation } from '../../evaluate/evaluation';
import { namedFields } from '../../shape/named-fields';
import { contentsOf } from '../field-contents';
import { fieldsInPhrase, readPhrase, type PhraseReading } from './read-phrase';

/** What words mean over an evaluated sheet, with what its fields hold. Cost: a pass over the fields that are named. */
export function readOver(evaluation: Evaluation, text: string): PhraseReading {
  const { sheet } = evaluation;
  const named = namedFields(sheet);
  const asked = new Set(fieldsInPhrase(text, { fields: named }));
  const fields = named.map((field) => {
    if (!asked.has(field.id)) return field;
    const reads = { fields: [field.id] };
    const profile = profileRule(evaluation, { rule: '', thresholds: [] }, readValues(sheet, reads));
    return { ...field, contents: contentsOf(profile), texts: profile.texts.map((each) => each.text) };
  });
  return readPhrase(text, { fields });
}
