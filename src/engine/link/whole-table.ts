import type { GivenOutcomes, GivenRule } from '../../core/rules/evaluate/given-outcomes';
import type { RuleProfile } from '../../core/rules/explain/profile-rule';
import type { Rule } from '../../core/rules/shape/rule';
import type { Problem } from '../../core/rules/terms';
import type { SheetId } from '../../core/sheet/ids';
import type { Sheet } from '../../core/sheet/sheet';
import type { LinkedHead, LinkedJudgement, LinkedProfile } from '../../protocol/linked-table';
import { readMessage } from '../../protocol/parse-message';
import { sheetUrl } from '../../protocol/sheet-url';
import { profileOfTable, withoutCondition } from './profile-of-table';

/** Rules that are asked about at once. */
const AT_ONCE = 2;
/** Rules of which something is known at most: a limit that is dragged makes many. */
const MAX_KNOWN = 200;
/** How long is waited for the next place of a threshold that is dragged. */
const REST_MS = 400;

/** Answers of a server that has too much to do: it is asked again. */
const BUSY = [429, 503];
const BUSY_MS = 3000;
const MAX_TRIES = 20;

const unknown = (message: string): { readonly problem: Problem } => ({ problem: { code: 'not-in-sql', message } });

/** The counts of a rule over all records; null while they are not known. */
export interface WholeCounts {
  readonly read: number;
  readonly matched: number;
}

/**
 * What rules come to over all records of a linked table, of which the sheet has only some: asked of the server once for
 * each rule as it is.
 */
export class WholeTable implements GivenOutcomes {
  private readonly known: Map<string, LinkedJudgement>;
  private readonly asking = new Set<string>();
  private wanted: readonly Rule[] = [];
  /** Of the rule on the bench: the values that it reads. */
  private profiled: {
    readonly key: string;
    readonly reads: string;
    readonly profile: RuleProfile | null;
  } | null = null;
  private timer: ReturnType<typeof setTimeout> | null = null;

  constructor(
    readonly head: LinkedHead,
    private readonly sheet: Sheet,
    private readonly link: {
      readonly id: SheetId;
      /** Hears that more is known of a rule. */
      readonly told: (rule: Rule) => void;
      /** What was known while other rows were here. */
      readonly before: WholeTable | null;
    },
  ) {
    // Outcomes are of the rows that were here; all else holds for every row.
    const kept = [...(link.before?.known ?? [])].filter(([, judged]) => judged.problem === null && !judged.rows);
    this.known = new Map(kept);
  }

  of(rule: Rule): GivenRule {
    const judged = this.known.get(keyOf(rule));
    if (!judged) return unknown('the database is being asked');
    if (judged.problem !== null) return unknown(judged.problem);
    if (judged.when) return { when: judged.when };
    const places = new Map(judged.rows?.map((row, at) => [row, at]));
    return {
      at: (column, slot) => {
        const place = places.get(this.sheet.rowId(slot));
        return place === undefined ? -1 : (judged.outcomes?.[this.sheet.field(column).id]?.[place] ?? -1);
      },
    };
  }

  /** The counts of a rule; null while they are not known, or cannot be. */
  countsOf(rule: Rule): WholeCounts | null {
    const judged = this.known.get(keyOf(rule));
    return judged && judged.problem === null ? judged : null;
  }

  /**
   * What the bench says of the values that a rule reads, over all records; of another condition over the same values
   * what does not depend on it, and null while nothing is known. It is asked for then, once for each rule as it is.
   */
  profileOf(rule: Rule): RuleProfile | null {
    const [key, reads] = [keyOf(rule), JSON.stringify(rule.reads)];
    const { profiled } = this;
    if (profiled?.key === key) return profiled.profile;
    const known = profiled?.reads === reads && profiled.profile ? withoutCondition(profiled.profile) : null;
    this.profiled = { key, reads, profile: known };
    void this.askProfile(rule, key);
    return known;
  }

  private async askProfile(rule: Rule, key: string): Promise<void> {
    // While a threshold is dragged only its last place is asked about.
    await new Promise((resolve) => setTimeout(resolve, REST_MS));
    if (this.profiled?.key !== key) return;
    const response = await this.post('linked/profile', { rule }).catch(() => null);
    const told = response?.ok ? await readMessage<LinkedProfile | null>(response) : null;
    if (!told || this.profiled.key !== key) return;
    this.profiled = { ...this.profiled, profile: profileOfTable(told) };
    this.link.told(rule);
  }

  /** Why nothing is known of a rule; null where it is, or the database is being asked. */
  problemOf(rule: Rule): Problem | null {
    const problem = this.known.get(keyOf(rule))?.problem ?? null;
    return problem === null ? null : { code: 'not-in-sql', message: problem };
  }

  /** Asks about these rules, as far as they are not known: the first ones first, and no others any more. */
  follow(rules: readonly Rule[]): void {
    this.wanted = rules.filter(({ on }) => on);
    if (this.timer !== null || !this.next()) return;
    this.timer = setTimeout(() => {
      this.timer = null;
      this.ask();
    }, REST_MS);
  }

  private next(): Rule | undefined {
    return this.wanted.find((rule) => !this.known.has(keyOf(rule)) && !this.asking.has(keyOf(rule)));
  }

  private ask(): void {
    while (this.asking.size < AT_ONCE) {
      const rule = this.next();
      if (!rule) return;
      void this.askAbout(rule);
    }
  }

  private async askAbout(rule: Rule): Promise<void> {
    const key = keyOf(rule);
    this.asking.add(key);
    const judged = await this.judged(rule);
    this.asking.delete(key);
    this.known.set(key, judged);
    const [oldest] = this.known.keys();
    if (this.known.size > MAX_KNOWN && oldest !== undefined) this.known.delete(oldest);
    this.link.told(rule);
    this.ask();
  }

  /**
   * The key of the next row after those here, or of the first of all, in which a rule gives a look; null where there is
   * none. Throws an Error in words where the database does not answer.
   */
  async nextRow(rule: Rule, after: readonly string[] | null): Promise<readonly string[] | null> {
    const response = await this.post('linked/next', { rule, ...(after ? { after } : {}) });
    const { key = null, refused } = await readMessage<{ key?: readonly string[] | null; refused?: string }>(response);
    if (refused !== undefined) throw new Error(refused);
    return key;
  }

  private post(path: string, body: object): Promise<Response> {
    return fetch(sheetUrl(this.link.id, path), {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
  }

  private async judged(rule: Rule): Promise<LinkedJudgement> {
    try {
      for (let tries = 0; tries < MAX_TRIES; tries++) {
        const response = await this.post('linked/judge', { rule, window: this.head.window });
        if (response.ok) return await readMessage<LinkedJudgement>(response);
        if (!BUSY.includes(response.status))
          return { problem: (await readMessage<{ refused?: string }>(response)).refused ?? NOT_ASKED };
        await new Promise((resolve) => setTimeout(resolve, BUSY_MS));
      }
    } catch {
      // Without a connection nothing is known.
    }
    return { problem: NOT_ASKED };
  }
}

const NOT_ASKED = 'the database could not be asked: change the rule, or reload the page, to ask again';

/** What says of a rule which cells it matches. */
const keyOf = ({ reads, when }: Rule): string => JSON.stringify([reads, when]);
