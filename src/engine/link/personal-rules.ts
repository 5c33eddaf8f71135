import { nanoid } from 'nanoid';
import { sheetUrl } from '../../protocol/sheet-url';
import type { Operation } from '../../core/sheet/change';
import { putRules, rulesOf, rulesPutBy, type StoredRule } from '../../core/rules/shape/stored-rule';
import type { RuleId, SheetId } from '../../core/sheet/ids';
import type { Replica } from '../replica/replica';
import { sendJson } from './send-json';

/** Rules that replace those with their ids, and rules removed. */
interface PersonalChange {
  readonly put: readonly StoredRule[];
  readonly remove: readonly RuleId[];
}

/**
 * Personal rules: the rules on a sheet that only this person sees. They are active in the replica with all others, but
 * are no part of the sheet: changes to them go to an endpoint of their own, without undo. Ranges that they read do not
 * follow rows that move.
 */
export class PersonalRules {
  private readonly path: string;

  /** They load later: the sheet need not wait for them. `inTurn` runs work in its turn and reports it. */
  constructor(
    sheet: SheetId,
    private readonly replica: Replica,
    private readonly inTurn: (work: () => void) => void,
  ) {
    this.path = sheetUrl(sheet, 'personal-rules');
    void this.load();
  }

  /** Carries out the operations on personal rules, and returns the others. Throws in words for the person. */
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

  /**
   * Makes rules of the sheet personal, or shares personal ones; returns the operations that the sheet needs for that.
   */
  async own(ids: readonly RuleId[], whose: 'mine' | 'everybodys'): Promise<Operation[]> {
    const { personal, sheet } = this.replica;
    const rules = (whose === 'mine' ? rulesOf(sheet) : personal).filter(({ id }) => ids.includes(id));
    if (rules.length === 0) return [];
    const old = rules.map(({ id }) => id);
    // Under another id: after undoing the removal the shared rule stands beside the personal one.
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
