import { nanoid } from 'nanoid';
import { itemAt } from '../../core/values/item-at';
import { FIRST_FAMILY } from '../../core/looks/first-family';
import type { Edit } from '../../core/edit/registry';
import { MAX_RULE_NAME, movedRule, type RuleChange } from '../../core/edit/rules';
import { kindOf, KINDS, type KindName } from '../../core/rules/kinds/registry';
import { isSameRule } from '../../core/rules/shape/is-same-rule';
import type { FieldProfile } from '../../core/rules/suggest/suggest-rules';
import type { RuleProfile } from '../../core/rules/explain/profile-rule';
import type { ValuePart } from '../../core/rules/explain/value-part';
import type { RuleIdea } from '../../core/rules/shape/rule-idea';
import type { Rule } from '../../core/rules/shape/rule';
import { sensibleProfile } from '../../core/rules/explain/sensible-profile';
import { inGroup } from '../../core/rules/shape/rule-groups';
import { withFittingQuiet } from '../../core/rules/shape/quiet';
import { ruleSentence } from '../../core/rules/shape/sentence-words';
import type { Operation } from '../../core/sheet/change';
import type { StoredRule } from '../../core/rules/shape/stored-rule';
import type { FieldId, RuleId } from '../../core/sheet/ids';
import { cellAddress, type CellRange } from '../../core/sheet/address';
import { keysAt } from '../../core/sheet/layout/keys-at';
import type { RefusedRule } from '../../protocol/engine-messages';
import type { LegendEntry } from '../../protocol/sheet-view';
import { selectCell, selectedArea, selectedAreas } from '../grid/engine/selection';
import { isUnkept, withSameBins, type Bench } from './session-state';
import type { SessionPort } from './session-port';
import { LatestOnly } from './engine/latest-only';

/** Rest between two readings of the values that the bench shows. */
const PICTURE_REST_MS = 40;
/** Drafts that are held; older ones are let go. */
const MAX_DRAFTS = 8;
/** Fields that suggestions are made for at once. */
const MAX_PROFILED = 12;

/** Actions on the rules of an open sheet: mostly on the one on the bench. */
export class RuleActions {
  /** Only the latest draft is sent while the engine is busy, so that dragging never runs ahead of it. */
  private readonly draftSending = new LatestOnly(async () => {
    await this.session.ask({ kind: 'draft', rule: this.session.get().bench?.draft ?? null });
  });
  private readonly profileReading = new LatestOnly(() => this.readProfile());

  constructor(private readonly session: SessionPort) {}

  /**
   * Keeps the bench in step with the rule that lies on it, while nobody is changing it there: others may, and so may an
   * undo.
   */
  follow(): void {
    const { bench, legend } = this.session.get();
    if (bench?.kept && isSameRule(bench.draft.rule, bench.kept.rule)) {
      const entry = legend.find(({ id }) => id === bench.draft.id);
      // A legend from before it was kept may still be on its way.
      if (!entry && bench.isListed) return this.leaveBench();
      if (entry && !entry.isDraft && !(bench.isListed && isSameRule(entry.rule, bench.kept.rule))) {
        const kept = storedRule(entry);
        this.session.set({ bench: { ...bench, draft: kept, kept, isListed: true } });
      }
    }
    void this.profileReading.run();
  }

  /** A rule could not be saved: it is a draft again, on the bench where it still lies there. */
  takeBack({ draft, kept }: RefusedRule): void {
    const { bench } = this.session.get();
    if (bench?.draft.id !== draft.id) return this.addDraft({ draft, kept, namesItself: false });
    this.session.set({ bench: { ...bench, kept } });
    void this.draftSending.run();
  }

  spotlight(rule: RuleId | null): void {
    this.session.set({ spotlight: rule });
    void this.session.ask({ kind: 'spotlight', rule });
  }

  /** Lights some of the values that the rule on the bench reads while they are pointed at; null ends it. */
  spotlightPart(part: ValuePart | null): void {
    const { bench, spotlight } = this.session.get();
    void this.session.ask(
      part && bench ? { kind: 'spotlight', rule: bench.draft.id, part } : { kind: 'spotlight', rule: spotlight },
    );
  }

  /** A profile of each of the first of some fields, for making a rule over one of them. */
  profileEach(fields: readonly FieldId[]): Promise<readonly FieldProfile[]> {
    return Promise.all(
      fields.slice(0, MAX_PROFILED).map(async (field) => ({ field, profile: await this.profileOf([field]) })),
    );
  }

  private async profileOf(fields: readonly FieldId[]): Promise<RuleProfile> {
    const found = await this.session.ask({ kind: 'ask-profile', rule: '', reads: { fields }, thresholds: [] });
    return { ...found, profile: sensibleProfile(found.profile) };
  }

  /** Opens a new rule of a kind on the bench, with thresholds from the contents of the selected fields. */
  async newRule(kind: KindName): Promise<void> {
    const fields = this.selectedFields();
    if (fields.length === 0) return;
    const { profile } = await this.profileOf(fields);
    const isMatch = KINDS[kind].outcomes === 'match';
    const { frame, selection } = this.session.get();
    const firstCell = cellAddress(selectedArea(selection).left, frame?.frozenRows ?? 0);
    const when = KINDS[kind].defaults({ ...profile, firstCell });
    this.begin({
      reads: { fields },
      when,
      paints: 'cell',
      settles: false,
      ...(isMatch ? { look: { look: 'watch' } } : {}),
    });
  }

  /** The fields that a new rule would read. */
  private selectedFields(): string[] {
    const { frame, selection } = this.session.get();
    const { left, right } = selectedArea(selection);
    return (frame?.fields ?? []).slice(left, right + 1).map((field) => field.id);
  }

  /** Opens a new rule on the bench. It comes first in precedence, or at the given order key. */
  begin(idea: RuleIdea, key?: string): void {
    const { frame, legend } = this.session.get();
    if (!frame) return;
    const id = nanoid(10);
    const rule: Rule = { id, name: '', on: true, ...idea };
    this.putAside();
    // The bench and the style shelf together would leave too little of the sheet.
    this.session.set({
      bench: { draft: { id, key: key ?? itemAt(keysAt(legend, 0, 1), 0), rule }, kept: null, namesItself: true },
      profile: null,
      panel: null,
    });
    this.changeDraft(rule);
  }

  /** Saves a rule that has its name and its place; it lies on the bench then. */
  put(rule: StoredRule): void {
    this.putAside();
    this.session.set({ bench: { draft: rule, kept: rule, namesItself: false }, profile: null, panel: null });
    this.edit({ do: 'put-rules', rules: [rule] });
  }

  /** Saves rules that are complete as they are, as one change; a single one lies on the bench then. */
  make(ideas: readonly RuleIdea[]): void {
    const { frame, legend } = this.session.get();
    if (!frame || ideas.length === 0) return;
    if (ideas.length === 1) {
      this.begin(itemAt(ideas, 0));
      return this.keepDraft();
    }
    this.putAside();
    const keys = keysAt(legend, 0, ideas.length);
    const rules = ideas.map((idea, at): StoredRule => {
      const id = nanoid(10);
      const name = ruleSentence(frame.fields, idea).slice(0, MAX_RULE_NAME);
      return { id, key: itemAt(keys, at), rule: { id, name, on: true, ...idea } };
    });
    this.edit({ do: 'put-rules', rules });
    this.session.set({ panel: null });
  }

  /** Opens a kept rule on the bench, to be changed there where it takes the focus, and lights its cells. */
  openRule(id: RuleId, takesFocus = false): void {
    const entry = this.session.get().legend.find((candidate) => candidate.id === id);
    if (!entry) return;
    if (this.session.get().bench?.draft.id === id) return this.spotlight(id);
    const kept = storedRule(entry);
    const { frame } = this.session.get();
    this.putAside();
    this.session.set({
      bench: {
        draft: kept,
        kept,
        namesItself: frame !== null && kept.rule.name === ruleSentence(frame.fields, kept.rule),
        takesFocus,
        isListed: true,
      },
      profile: null,
      panel: null,
    });
    void this.session.ask({ kind: 'draft', rule: null });
    this.spotlight(id);
    void this.profileReading.run();
    void this.showMatch(-1, 'here');
  }

  /** Selects the next cell below a position that the rule on the bench gives a look; of a linked table maybe elsewhere. */
  async showMatch(
    after = this.session.get().selection.anchor.position,
    where: 'here' | 'anywhere' = 'anywhere',
  ): Promise<void> {
    const rule = this.session.get().bench?.draft.id;
    if (rule === undefined) return;
    const found = await this.session.ask({ kind: 'ask-match', rule, after });
    const isLinked = where === 'anywhere' && Boolean(this.session.get().frame?.linked);
    const elsewhere =
      isLinked && (found === null || found.position <= after)
        ? await this.session.ask({ kind: 'find-row', rule })
        : null;
    const cell = elsewhere ?? found;
    if (!cell) return;
    this.session.show(selectCell(cell));
  }

  /** Changes the rule on the bench; the sheet shows it at once, others see it when it is kept. */
  changeDraft(rule: Rule, how: 'dragged' | 'chosen' = 'chosen'): void {
    const { bench, frame } = this.session.get();
    if (!bench || !frame) return;
    const named = bench.namesItself
      ? { ...rule, name: ruleSentence(frame.fields, rule).slice(0, MAX_RULE_NAME) }
      : rule;
    this.session.set({ bench: { ...bench, draft: { ...bench.draft, rule: named }, isDragged: how === 'dragged' } });
    void this.draftSending.run();
  }

  /**
   * The same while a handle is dragged: the bench and the sheet are rendered at once, which halves the work. Not for
   * typing, which must show at once.
   */
  dragDraft(rule: Rule): void {
    this.session.holdForEngine();
    this.changeDraft(rule, 'dragged');
  }

  nameDraft(name: string): void {
    const { bench } = this.session.get();
    if (!bench) return;
    this.session.set({ bench: { ...bench, namesItself: name === '' } });
    this.changeDraft({ ...bench.draft.rule, name });
  }

  /** The picture of the values that the draft reads. */
  private async readProfile(): Promise<void> {
    const { bench } = this.session.get();
    if (!bench) return;
    const { rule } = bench.draft;
    const thresholds = kindOf(rule.when)
      .thresholds(rule.when)
      .map(({ value }) => value);
    const profile = await this.session.ask({ kind: 'ask-profile', rule: rule.id, reads: rule.reads, thresholds });
    const { bench: still, profile: before } = this.session.get();
    if (still) this.session.set({ profile: before ? withSameBins(profile, before) : profile });
    // While a threshold is dragged the picture follows a little less often than the sheet, and leaves time for it.
    await new Promise((resolve) => setTimeout(resolve, PICTURE_REST_MS));
  }

  /** Keeps the rule on the bench, for everybody. */
  keepDraft(): void {
    const { bench } = this.session.get();
    if (!bench) return;
    const draft = { ...bench.draft, rule: withFittingQuiet(bench.draft.rule) };
    this.edit({ do: 'put-rules', rules: [draft] });
    this.session.set({ bench: { ...bench, draft, kept: draft } });
    void this.session.ask({ kind: 'draft', rule: null });
  }

  /**
   * Keeps the rule on the bench and begins the next one after it: on the same cells, of the same kind, with the next
   * look.
   */
  keepAndGoOn(): void {
    const { bench, legend } = this.session.get();
    if (!bench) return;
    const { id, name: _, on: __, trials: ___, ...idea } = bench.draft.rule;
    this.keepDraft();
    // The legend may not have the rule yet.
    const others = legend.filter((entry) => entry.id !== id);
    const at = others.findIndex(({ key }) => key > bench.draft.key);
    const place = at < 0 ? others.length : at;
    const [key] = keysAt([...others.slice(0, place), bench.draft, ...others.slice(place)], place + 1, 1);
    const next = itemAt(
      FIRST_FAMILY,
      (FIRST_FAMILY.findIndex((look) => look.id === idea.look?.look) + 1) % FIRST_FAMILY.length,
    );
    this.begin({ ...idea, ...(idea.look ? { look: { look: next.id } } : {}) }, key);
  }

  /** Takes the rule off the bench; what was not kept is as it was. */
  leaveBench(): void {
    this.session.set({ bench: null, profile: null });
    this.spotlight(null);
    void this.session.ask({ kind: 'draft', rule: null });
  }

  /** Takes the rule off the bench; what was not saved of it is a draft, to be taken up again. */
  putAside(): void {
    const { bench, byExample } = this.session.get();
    if (bench && isUnkept(bench)) this.addDraft(bench);
    if (bench) this.leaveBench();
    if (byExample) this.session.set({ byExample: null });
    if (byExample) void this.session.ask({ kind: 'draft', rule: null });
  }

  private addDraft(added: Bench): void {
    const others = this.session.get().drafts.filter(({ draft }) => draft.id !== added.draft.id);
    this.session.set({ drafts: [added, ...others].slice(0, MAX_DRAFTS) });
  }

  /** Puts a draft on the bench again. */
  takeUp(id: RuleId): void {
    const found = this.session.get().drafts.find(({ draft }) => draft.id === id);
    if (!found) return;
    this.putAside();
    this.session.set({ bench: found, drafts: this.session.get().drafts.filter((each) => each !== found), panel: null });
    void this.draftSending.run();
    void this.profileReading.run();
  }

  discardDrafts(): void {
    this.session.set({ drafts: [] });
  }

  duplicateRule(rule: RuleId): void {
    this.edit({ do: 'duplicate-rule', rule });
  }

  /** Moves a rule to a place in the order of precedence, counted from 0. */
  moveRule(id: RuleId, to: number): void {
    const { bench, legend } = this.session.get();
    const entry = legend.find((candidate) => candidate.id === id);
    const rest = legend.filter((candidate) => candidate.id !== id);
    if (!entry || to < 0 || to > rest.length) return;
    const after = rest[to - 1]?.id ?? null;
    if (bench?.draft.id === id) {
      const { key, rule } = movedRule(legend, { rule: id, after })!;
      const moved = (stored: StoredRule): StoredRule => ({ ...stored, key, rule: inGroup(stored.rule, rule.group) });
      this.session.set({ bench: { ...bench, draft: moved(bench.draft), kept: bench.kept && moved(bench.kept) } });
    }
    if (!entry.isDraft) this.edit({ do: 'move-rule', rule: id, after });
    else void this.draftSending.run();
  }

  /** Removes rules as one change, which an undo brings back. */
  removeRules(ids: readonly RuleId[]): void {
    const { bench, legend } = this.session.get();
    if (bench && ids.includes(bench.draft.id)) this.leaveBench();
    const kept = ids.filter((id) =>
      legend.some((entry) => entry.id === id && !(entry.isDraft && bench?.kept === null)),
    );
    if (kept.length) this.edit({ do: 'remove-rules', rules: kept });
    this.session.set({ chosen: [] });
  }

  /** Removes the rules that read or paint a selected cell. */
  async removeTouching(): Promise<void> {
    const areas = selectedAreas(this.session.get().selection);
    this.removeRules(await this.session.ask({ kind: 'ask-touching', areas }));
  }

  /** Chooses one more rule of the legend, or one less. */
  toggleChosen(id: RuleId): void {
    const { chosen } = this.session.get();
    this.session.set({ chosen: chosen.includes(id) ? chosen.filter((other) => other !== id) : [...chosen, id] });
  }

  /** Chooses just these rules. */
  chooseRules(chosen: readonly RuleId[]): void {
    this.session.set({ chosen });
  }

  showOnlyTouching(onlyTouching: boolean): void {
    this.session.set({ onlyTouching });
  }

  /** Changes several rules as one change. */
  changeRules(ids: readonly RuleId[], to: RuleChange): void {
    const rules = this.withoutDrafts(ids);
    if (rules.length) this.edit({ do: 'change-rules', rules, to });
  }

  /** The rules without one that is being changed on the bench: its draft must not be kept by the way. */
  private withoutDrafts(ids: readonly RuleId[]): RuleId[] {
    const { legend } = this.session.get();
    return legend.filter((entry) => ids.includes(entry.id) && !entry.isDraft).map(({ id }) => id);
  }

  /** Sets the group of rules in the legend; null removes it. */
  groupRules(ids: readonly RuleId[], group: string | null): void {
    this.changeRules(ids, { group });
    this.session.set({ chosen: [] });
  }

  private get selectedCells(): { readonly fields: readonly FieldId[]; readonly areas: readonly CellRange[] } {
    return { fields: this.selectedFields(), areas: selectedAreas(this.session.get().selection) };
  }

  /** Lets rules read the selected cells instead of theirs; what they say stays. */
  reachSelection(ids: readonly RuleId[]): void {
    const rules = this.withoutDrafts(ids);
    if (rules.length) this.edit({ do: 'reach-rules', rules, ...this.selectedCells });
  }

  /** Lets those of some rules that read whole fields read these; rules over certain cells keep theirs. */
  readFields(ids: readonly RuleId[], fields: readonly FieldId[]): void {
    const { legend } = this.session.get();
    const rules = this.withoutDrafts(ids).filter((id) =>
      legend.some((entry) => entry.id === id && 'fields' in entry.rule.reads),
    );
    if (rules.length) this.edit({ do: 'reach-rules', rules, fields, areas: [] });
  }

  /** Makes copies of rules over the selected cells. */
  carryToSelection(rules: readonly RuleId[]): void {
    this.edit({ do: 'carry-rules', rules, ...this.selectedCells });
  }

  private edit(edit: Edit): void {
    void this.session.withErrorMessage(this.session.ask({ kind: 'edit', edit }));
  }

  /** Makes a change of rules, or of what lies beside them. */
  change(operations: readonly Operation[]): void {
    void this.session.withErrorMessage(this.session.ask({ kind: 'change', operations }));
  }
}

const storedRule = ({ id, key, rule }: LegendEntry): StoredRule => ({ id, key, rule });
