import { nanoid } from 'nanoid';
import { sheetUrl } from '../../protocol/sheet-url';
import { itemAt } from '../../core/values/item-at';
import { carryToSheet } from '../../core/rules/move/carry-to-sheet';
import { putRules, type StoredRule } from '../../core/rules/shape/stored-rule';
import type { SheetId } from '../../core/sheet/ids';
import { keysAt } from '../../core/sheet/layout/keys-at';
import type { Sheet } from '../../core/sheet/sheet';
import type { LookPart } from '../../core/sheet/sheet-part';
import { unpackSheet } from '../../protocol/packed/packed-sheet';
import { fetchSheet } from '../link/fetch-sheet';
import { sendJson } from '../link/send-json';

/**
 * Makes copies of rules on another sheet, after those that are there. Throws in words where a field is missing there;
 * then none is made.
 */
export async function carryElsewhere(
  from: Sheet,
  stored: readonly StoredRule[],
  target: SheetId,
): Promise<{ readonly name: string }> {
  const { sheet: to, head } = unpackSheet(await fetchSheet(target));
  const there = to.rulesInOrder();
  const keys = keysAt(there, there.length, stored.length);
  const looks = new Map<string, LookPart>();
  const rules = stored.map(({ rule }, at): StoredRule => {
    const carried = carryToSheet(rule, { from, to });
    if ('missing' in carried) throw new Error(missingThere(rule.name, head.name, carried.missing));
    for (const look of carried.looks) looks.set(look.id, look);
    const id = nanoid(10);
    return { id, key: itemAt(keys, at), rule: { ...carried.rule, id } };
  });
  const operations = [...(looks.size ? [{ kind: 'put-parts', parts: [...looks.values()] }] : []), putRules(rules)];
  const sent = await sendJson(sheetUrl(target, 'changes'), {
    body: { id: nanoid(), operations },
  });
  if ('refused' in sent) throw new Error(sent.refused);
  return { name: head.name };
}

const missingThere = (rule: string, sheet: string, labels: readonly string[]): string =>
  `“${rule}” was not carried: ${sheet} has no field called ${labels.map((label) => `“${label}”`).join(' or ')}. Give a field there that name, then try again.`;
