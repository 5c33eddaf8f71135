import { nanoid } from 'nanoid';
import { lookNames, rulesForSheet } from '../../core/exchange/rules/rules-for-sheet';
import { ruleFile } from '../../core/exchange/rules/write-rule-file';
import { savedLooks } from '../../core/sheet/sheet-looks';
import { readRuleSet } from '../../core/rules/shape/read-rule-set';
import { storedInOrder } from '../../core/rules/shape/stored-in-order';
import { OWN_ALL } from '../../core/sharing/role';
import type { Operation } from '../../core/sheet/change';
import { putRules, rulesOf, type StoredRule } from '../../core/rules/shape/stored-rule';
import type { SheetId } from '../../core/sheet/ids';
import { Sheet } from '../../core/sheet/sheet';
import type { Queryable, Sql } from '../database';
import { Refusal } from '../refusal';
import { commitComputed } from '../sheets/take-change';
import { readFields } from '../sql/field';
import { readParts } from '../sql/part';
import type { FoundProgram } from '../sql/program';
import { findHeader } from '../sql/row';
import { readRules } from '../sql/rule';
import { refusalText } from '../../texts/refusal-text';

/** The sheet's fields, labels, looks and rules, without its records. */
async function headOfSheet(
  sql: Queryable,
  id: SheetId,
): Promise<{ readonly sheet: Sheet; readonly rules: readonly StoredRule[] }> {
  const [fields, header, parts, rules] = [
    await readFields(sql, id),
    await findHeader(sql, id),
    await readParts(sql, id),
    await readRules(sql, id),
  ];
  const made = new Sheet(fields);
  if (header) made.apply({ kind: 'insert-rows', rows: [header] });
  made.parts.put(parts);
  made.rules.put(rules);
  return { sheet: made, rules };
}

/** The rules of a sheet as a rule file. */
export async function rulesOfSheet(sql: Sql, id: SheetId): Promise<object> {
  const { sheet } = await headOfSheet(sql, id);
  const saved = savedLooks(sheet.parts.values(), 'light');
  return ruleFile(
    rulesOf(sheet).map(({ rule }) => rule),
    sheet,
    saved,
  );
}

/** The sheet has been changed since its rules were read. */
export class ChangedSince extends Error {}

interface ReplaceRulesInput {
  readonly program: FoundProgram;
  readonly file: object;
  /** The change after which the rules were read; they must be as they were then. Null for whatever they are. */
  readonly readAt: number | null;
}

/**
 * Replaces the rules of a sheet by those of a rule file. Throws a Refusal that names the place in the file, or
 * ChangedSince.
 */
export async function replaceRules(
  sql: Sql,
  { program, file, readAt }: ReplaceRulesInput,
): Promise<{ readonly sequence: number; readonly rules: number }> {
  const read = readRuleSet(file, lookNames((await headOfSheet(sql, program.sheet)).sheet));
  if ('message' in read) throw new Refusal('bad-request', read.message);
  const by = { author: `program ${program.id}`, role: 'editor' as const, own: OWN_ALL };
  const sequence = await commitComputed(sql, {
    sheet: program.sheet,
    by,
    id: nanoid(),
    compute: async (tx, head) => {
      if (readAt !== null && readAt !== head) throw new ChangedSince();
      const { sheet, rules: before } = await headOfSheet(tx, program.sheet);
      const { rules, looks: parts } = rulesForSheet(read.rules, sheet, ({ id }) =>
        /^[\w-]{1,64}$/.test(id) ? id : nanoid(10),
      );
      const stored = storedInOrder(rules);
      const gone = before.flatMap(({ id }) => (stored.some((rule) => rule.id === id) ? [] : id));
      const operations: Operation[] = [
        ...(parts.length ? [{ kind: 'put-parts' as const, parts }] : []),
        ...(gone.length ? [{ kind: 'remove-rules' as const, rules: gone }] : []),
        ...(stored.length ? [putRules(stored)] : []),
      ];
      if (operations.length === 0) throw new Refusal('bad-request', refusalText('thereNoRulesFile'));
      return operations;
    },
  });
  return { sequence, rules: read.rules.rules.length };
}
