import { generateNKeysBetween } from 'fractional-indexing';
import { itemAt } from '../values/item-at';
import { MAX_RULE_NAME } from '../edit/rules';
import { Evaluation } from '../rules/evaluate/evaluation';
import { ruleSentence } from '../rules/shape/sentence-words';
import { namedFields } from '../rules/shape/named-fields';
import type { StoredRule } from '../rules/shape/stored-rule';
import type { Example } from '../rules/suggest/examples';
import { readOver } from '../rules/suggest/phrase/read-over';
import type { StoredRow } from '../sheet/change';
import { NOTHING_OPEN } from '../sharing/filling';
import { newField, type Field } from '../sheet/field';
import { Sheet } from '../sheet/sheet';
import type { SheetContents } from './sheet-contents';

/**
 * A sheet of an example: its table, with the rules that its words mean. Words that mean nothing over it are left out. The
 * moment says which days are past.
 */
export function exampleSheet(name: string, { rows, phrases, open = [] }: Example, now: number): SheetContents {
  const table = tableOf(rows);
  const made = new Sheet(table.fields);
  made.apply({ kind: 'insert-rows', rows: table.rows });
  const evaluation = new Evaluation(made, {}, { now });
  evaluation.calculation.calculateAll();
  const ideas = phrases.flatMap((phrase) => {
    const reading = readOver(evaluation, phrase);
    return 'ideas' in reading ? reading.ideas : [];
  });
  const keys = generateNKeysBetween(null, null, ideas.length);
  const fields = namedFields(made);
  const rules = ideas.map((idea, at): StoredRule => {
    const id = `rule-${at + 1}`;
    const ruleName = ruleSentence(fields, idea).slice(0, MAX_RULE_NAME);
    return { id, key: itemAt(keys, at), rule: { id, name: ruleName, on: true, ...idea } };
  });
  const opened = fields.filter(({ label }) => open.includes(label)).map(({ id }) => id);
  return { name, ...table, rules, ...(opened.length > 0 ? { parts: [{ ...NOTHING_OPEN, open: opened }] } : {}) };
}

function tableOf(rows: Example['rows']): { readonly fields: readonly Field[]; readonly rows: readonly StoredRow[] } {
  const labels = itemAt(rows, 0);
  const fields = generateNKeysBetween(null, null, labels.length).map((key, at) => newField(`f${at + 1}`, key));
  const keys = generateNKeysBetween(null, null, rows.length);
  return {
    fields,
    rows: rows.map((row, at) => ({
      id: `r${at}`,
      key: itemAt(keys, at),
      role: at === 0 ? 'header' : 'record',
      cells: Object.fromEntries(
        row.flatMap((input, column) => (input === '' ? [] : [[`f${column + 1}`, input] as const])),
      ),
    })),
  };
}

/** A sheet with blank records after its own, to go on in: as many as make up a number of rows. */
export function withRoom(contents: SheetContents, count: number): SheetContents {
  const { rows } = contents;
  const keys = generateNKeysBetween(rows.at(-1)?.key ?? null, null, Math.max(0, count - rows.length));
  const blank = keys.map((key, at): StoredRow => ({ id: `blank${at}`, key, role: 'record', cells: {} }));
  return { ...contents, rows: [...rows, ...blank] };
}
