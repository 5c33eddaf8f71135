import { nanoid } from 'nanoid';
import { MAX_RULE_NAME } from '../../core/edit/rules';
import { FIRST_FAMILY } from '../../core/looks/first-family';
import type { Look } from '../../core/looks/look';
import type { StoredRule } from '../../core/rules/shape/stored-rule';
import { columnLetters } from '../../core/sheet/address';
import type { CellIds } from '../../core/sheet/ids';
import { keysAt } from '../../core/sheet/layout/keys-at';
import { itemAt } from '../../core/values/item-at';
import type { FilledCells, PointedExamples, ProposalTold } from '../../protocol/by-example';
import type { Area, SheetFrame } from '../../protocol/sheet-view';
import { selectedArea, selectedAreas } from '../grid/engine/selection';
import { LatestOnly } from './engine/latest-only';
import type { RuleActions } from './rule-actions';
import type { SessionPort } from './session-port';
import type { ByExample } from './session-state';

/** Cells that are pointed at with one selection. */
const MAX_POINTED = 100;

/** Which look some cells are to have: that of a group, by its number, or none. */
export type Wanted = number | 'none';

const isCell = (one: CellIds, other: CellIds): boolean => one.row === other.row && one.field === other.field;

/** Actions on a rule that is made by pointing at cells, or by explaining a fill. The sheet shows the chosen proposal. */
export class ExampleActions {
  private readonly asking = new LatestOnly(() => this.propose());

  constructor(
    private readonly session: SessionPort,
    private readonly rules: RuleActions,
  ) {}

  /** Begins with the selected cells, which are to have a look; whole rows stand for their records. */
  async begin(): Promise<void> {
    const { frame, selection } = this.session.get();
    if (!frame) return;
    const isRecord = coversRecords(frame.fields, selectedArea(selection));
    const cells = await this.selectedCells(isRecord);
    this.rules.putAside();
    this.open({ wanted: [{ look: lookAt(0), cells }], unwanted: [], paints: isRecord ? 'record' : 'cell' }, null);
    void this.asking.run();
  }

  /** Points at the selected cells, or begins with them. */
  pointOrBegin(as: Wanted): void {
    const { byExample } = this.session.get();
    if (byExample && !byExample.filled) void this.point(as);
    else if (as !== 'none') void this.begin();
  }

  /** Explains a fill that was made by hand. */
  async explain(filled: FilledCells): Promise<void> {
    this.rules.putAside();
    const paints = filled.isRecord ? 'record' : 'cell';
    this.open({ wanted: [{ look: { fill: filled.fill }, cells: [] }], unwanted: [], paints }, filled);
    const proposals = await this.session.ask({ kind: 'ask-explanation', filled });
    const { byExample } = this.session.get();
    if (byExample?.filled !== filled) return;
    this.change({ told: { proposals, ask: null, wanted: [[]], unwanted: [] } });
    this.preview();
  }

  private open(examples: PointedExamples, filled: FilledCells | null): void {
    const byExample = { examples, filled, told: null, chosen: 0, draft: nanoid(10) };
    this.session.set({ byExample, panel: null, profile: null });
  }

  /** Points at the selected cells. */
  async point(as: Wanted): Promise<void> {
    const { byExample } = this.session.get();
    if (!byExample || byExample.filled) return;
    this.place(await this.selectedCells(byExample.examples.paints === 'record'), as);
  }

  /** Answers for the cell that is asked about. */
  answer(as: Wanted): void {
    const ask = this.session.get().byExample?.told?.ask;
    if (ask) this.place([ask.cell], as);
  }

  /** One more look, for the next cells that are pointed at. */
  addLook(): void {
    const { byExample } = this.session.get();
    if (!byExample) return;
    const { wanted } = byExample.examples;
    this.change({
      examples: { ...byExample.examples, wanted: [...wanted, { look: lookAt(wanted.length), cells: [] }] },
    });
    void this.point(wanted.length);
  }

  /** Takes an example away. */
  remove(cell: CellIds): void {
    this.place([cell], null);
  }

  /** Puts cells among the examples of one sort, and takes them from the others; null takes them away. */
  private place(cells: readonly CellIds[], as: Wanted | null): void {
    const { byExample } = this.session.get();
    if (!byExample || cells.length === 0) return;
    const without = (list: readonly CellIds[]) => list.filter((each) => !cells.some((cell) => isCell(each, cell)));
    const { wanted, unwanted, paints } = byExample.examples;
    const examples: PointedExamples = {
      wanted: wanted.map((group, at) => ({
        ...group,
        cells: [...without(group.cells), ...(at === as ? cells : [])],
      })),
      unwanted: [...without(unwanted), ...(as === 'none' ? cells : [])],
      paints,
    };
    this.change({ examples, chosen: 0 });
    void this.asking.run();
  }

  /** Shows a proposal on the sheet. */
  choose(chosen: number): void {
    this.change({ chosen });
    this.preview();
  }

  /** Saves the chosen proposal as a rule; one that explains a fill takes its place. */
  save(): void {
    const { byExample } = this.session.get();
    const rule = this.ruleOf(byExample);
    if (!byExample || !rule) return;
    const { filled } = byExample;
    this.rules.putAside();
    if (!filled) {
      this.rules.put(rule);
      return;
    }
    const edit = { do: 'put-rule-for-fill', rule, fill: filled.fill, fields: filled.fields } as const;
    void this.session.withErrorMessage(this.session.ask({ kind: 'edit', edit }));
  }

  /** Goes on with the chosen proposal on the bench. */
  openOnBench(): void {
    const { byExample } = this.session.get();
    const proposal = byExample && chosenOf(byExample);
    if (proposal) this.rules.begin(proposal.idea);
  }

  leave(): void {
    this.rules.putAside();
  }

  private async propose(): Promise<void> {
    const { byExample } = this.session.get();
    if (!byExample || byExample.filled) return;
    const { examples } = byExample;
    const told = await this.session.ask({ kind: 'ask-proposals', examples });
    const { byExample: now } = this.session.get();
    if (now?.draft !== byExample.draft) return;
    this.change({ told });
    this.preview();
  }

  private preview(): void {
    const rule = this.ruleOf(this.session.get().byExample);
    void this.session.ask({ kind: 'draft', rule });
  }

  private ruleOf(byExample: ByExample | null): StoredRule | null {
    const proposal = byExample && chosenOf(byExample);
    if (!proposal) return null;
    const { legend } = this.session.get();
    const key = itemAt(
      keysAt(
        legend.filter(({ id }) => id !== byExample.draft),
        0,
        1,
      ),
      0,
    );
    const name = proposal.sentence.slice(0, MAX_RULE_NAME);
    return { id: byExample.draft, key, rule: { id: byExample.draft, name, on: true, ...proposal.idea } };
  }

  private change(change: Partial<ByExample>): void {
    const { byExample } = this.session.get();
    if (byExample) this.session.set({ byExample: { ...byExample, ...change } });
  }

  /** The selected cells; of whole rows, the first of each. */
  private selectedCells(isRecord: boolean): Promise<readonly CellIds[]> {
    const areas = selectedAreas(this.session.get().selection);
    const firsts = areas.map((area) => ({ ...area, right: area.left }));
    return this.session.ask({ kind: 'ask-cells', areas: isRecord ? firsts : areas, most: MAX_POINTED });
  }
}

/** Whether an area covers records as a whole: all fields, or all that have a label. */
function coversRecords(fields: SheetFrame['fields'], { left, right }: Area): boolean {
  const isLabelled = fields.map(({ label }, column) => label !== columnLetters(column));
  return right > left && isLabelled.every((labelled, column) => !labelled || (column >= left && column <= right));
}

/** The proposal that the sheet shows. */
export const chosenOf = ({ told, chosen }: ByExample): ProposalTold | undefined => told?.proposals[chosen];

/** The looks that groups of examples get, one after another. */
const lookAt = (at: number): Look => ({ look: itemAt(FIRST_FAMILY, at % FIRST_FAMILY.length).id });
