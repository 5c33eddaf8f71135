import { nanoid } from 'nanoid';
import type { Operation } from '../../core/sheet/change';
import { putRules, rulesOf, rulesPutBy, type StoredRule } from '../../core/rules/shape/stored-rule';
import type { RuleId, SheetId } from '../../core/sheet/ids';
import type { Replica } from '../replica/replica';
import { sendJson } from './send-json';

/** Rules put in the place of those with their ids, and rules removed. */
interface PersonalChange {
  readonly put: readonly StoredRule[];
  readonly remove: readonly RuleId[];
}

/**
 * The rules on a sheet that only oneself sees. They are at work in the replica with all others, but they are no part of the sheet: what is
 * done to them goes to a place of its own on the server, and undo does not know it. Ranges that they read do not follow rows that move.
 */
export class PersonalRules {
  private readonly path: string;

  /** They come when they come: the sheet need not wait for them. `inTurn` does something in its turn, and has it told then. */
  constructor(
    sheet: SheetId,
    private readonly replica: Replica,
    private readonly inTurn: (work: () => void) => void,
  ) {
    this.path = `/api/sheets/${encodeURIComponent(sheet)}/personal-rules`;
    void this.load();
  }

  /** Does what of some operations is about personal rules, and gives the others. Throws in words for the person who asked. */
  async take(operations: readonly Operation[]): Promise<readonly Operation[]> {
    const personal = new Set(this.replica.personal.map(({ id }) => id));
    if (personal.size === 0) return operations;
    const put: StoredRule[] = [];
    const remove: RuleId[] = [];
    const others = operations.flatMap((operation): Operation[] => {
      if (operation.kind === 'put-rules') {
        put.push(...rulesPutBy(operation).filter(({ id }) => personal.has(id)));
        const rules = rulesPutBy(operation).filter(({ id }) => !personal.has(id));
        return rules.length ? [putRules(rules)] : [];
      }
      if (operation.kind === 'remove-rules') {
        remove.push(...operation.rules.filter((id) => personal.has(id)));
        const rules = operation.rules.filter((id) => !personal.has(id));
        return rules.length ? [{ kind: 'remove-rules', rules }] : [];
      }
      return [operation];
    });
    await this.change({ put, remove });
    return others;
  }

  /** Takes rules of the sheet for oneself alone, or gives one's own away; the operations that the sheet needs for that. */
  async own(ids: readonly RuleId[], whose: 'mine' | 'everybodys'): Promise<Operation[]> {
    const { personal, sheet } = this.replica;
    const rules = (whose === 'mine' ? rulesOf(sheet) : personal).filter(({ id }) => ids.includes(id));
    if (rules.length === 0) return [];
    const old = rules.map(({ id }) => id);
    // Under another id: whoever takes the removal back has the shared rule beside their own.
    const renamed = rules.map((stored) => withId(stored, nanoid(10)));
    await this.change(whose === 'mine' ? { put: renamed, remove: [] } : { put: [], remove: old });
    return whose === 'mine' ? [{ kind: 'remove-rules', rules: old }] : [putRules(renamed)];
  }

  private async load(): Promise<void> {
    const sent = await sendJson<StoredRule[]>(this.path, { method: 'GET' });
    if ('refused' in sent) return;
    const rules = sent.answer;
    if (rules.length) this.inTurn(() => this.replica.setPersonal(rules));
  }

  private async change({ put, remove }: PersonalChange): Promise<void> {
    if (put.length + remove.length === 0) return;
    const sent = await sendJson(this.path, { method: 'PATCH', body: { put, remove } });
    if ('refused' in sent) throw new Error(sent.refused);
    const gone = new Set([...remove, ...put.map(({ id }) => id)]);
    this.inTurn(() => this.replica.setPersonal([...this.replica.personal.filter(({ id }) => !gone.has(id)), ...put]));
  }
}

const withId = ({ key, rule }: StoredRule, id: RuleId): StoredRule => ({ id, key, rule: { ...rule, id } });
