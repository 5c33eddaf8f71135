import { itemAt } from '../../values/item-at';
import { labelIndex } from '../../sheet/label-index';
import { shownAt } from '../../sheet/shown-cell';
import { compareValues } from '../../rules/compile/compare-values';
import { foldText } from '../../values/fold-text';
import { readInput } from '../../values/read-input';
import { BadFile } from '../bad-file';
import { wholeArea, type ExportSource } from '../export-source';
import { isFilledRecord, toldFields, toldRecord, type ToldRecord } from './records-of-sheet';

export interface RecordsWanted {
  readonly limit: number;
  /** The row id after which the page begins; from the top where absent. */
  readonly after?: string;
  /** Conditions that all must hold, such as `Oxygen<7`. */
  readonly where: readonly string[];
  /** The id or name of a rule that gives a look somewhere in the record. */
  readonly rule?: string;
  readonly looks: boolean;
}

export interface RecordsPage {
  /** The change up to which the sheet is shown. */
  readonly sequence: number;
  /** The row id of the last record, where there are more; null after the last page. */
  readonly next: string | null;
  readonly records: readonly (Omit<ToldRecord, 'looks'> & Partial<Pick<ToldRecord, 'looks'>>)[];
}

type Holds = (slot: number) => boolean;

/** A page of records, with their looks. Throws a BadFile where a condition, the rule or the cursor is none. */
export function recordsPage(
  source: ExportSource,
  { limit, after, where, rule, looks }: RecordsWanted,
  sequence: number,
): RecordsPage {
  const { sheet } = source;
  const tests = [
    ...where.map((condition) => conditionOf(condition, source)),
    ...(rule === undefined ? [] : [matchedBy(rule, source)]),
  ];
  const slot = after === undefined ? undefined : sheet.findSlot(after);
  if (after !== undefined && slot === undefined)
    throw new BadFile('the record where the page before ended is gone: begin again without a cursor', 'cursor');
  const fields = toldFields(sheet, wholeArea(sheet));
  const records: RecordsPage['records'][number][] = [];
  let last: string | null = null;
  for (let position = slot === undefined ? 0 : sheet.positionOf(slot) + 1; position < sheet.order.length; position++) {
    const at = sheet.slotAt(position);
    if (!isFilledRecord(sheet, at) || !tests.every((holds) => holds(at))) continue;
    if (records.length === limit) return { sequence, next: last, records };
    const { looks: given, ...told } = toldRecord(source, fields, position);
    records.push(looks ? { ...told, looks: given } : told);
    last = sheet.rowId(at);
  }
  return { sequence, next: null, records };
}

const OPERATORS: readonly (readonly [sign: string, holds: (order: number) => boolean])[] = [
  ['!=', (order) => order !== 0],
  ['<=', (order) => order <= 0],
  ['>=', (order) => order >= 0],
  ['=', (order) => order === 0],
  ['<', (order) => order < 0],
  ['>', (order) => order > 0],
];

/** A condition as a test of rows. The longest label that the text begins with is the field. */
function conditionOf(text: string, { sheet }: ExportSource): Holds {
  const match = /^([^=!<>~]+)(!=|<=|>=|=|<|>|~)([\s\S]*)$/.exec(text);
  const [, label, sign, sought] = match ?? [];
  if (label === undefined || sign === undefined || sought === undefined)
    throw new BadFile(
      `"${text}" is no condition; expected a label, one of = != < <= > >= ~, and a value, such as Oxygen<7`,
      'where',
    );
  const field = labelIndex(sheet)(label.trim());
  const column = field === undefined ? undefined : sheet.findColumn(field);
  if (column === undefined) throw new BadFile(`there is no field "${label.trim()}"`, 'where');
  const store = sheet.column(column);
  if (sign === '~') {
    const folded = foldText(sought);
    return (slot) => foldText(shownAt(sheet, column, slot)).includes(folded);
  }
  const { value } = readInput(sought.trim());
  const [, holds] = OPERATORS.find(([known]) => known === sign) ?? itemAt(OPERATORS, 0);
  if (value.kind === 'blank') return (slot) => (store.valueAt(slot).kind === 'blank') === (sign === '=');
  return (slot) => {
    const order = compareValues(store.valueAt(slot), value);
    return !Number.isNaN(order) && holds(order);
  };
}

function matchedBy(rule: string, { running, resolver, sheet }: ExportSource): Holds {
  const wanted = running.findIndex(({ rule: { id } }) => id === rule);
  const place = wanted >= 0 ? wanted : running.findIndex(({ rule: { name } }) => foldText(name) === foldText(rule));
  if (place < 0) throw new BadFile(`there is no rule "${rule}" at work`, 'rule');
  return (slot) => sheet.fields.some((_, column) => resolver.resolve(column, slot).rules.includes(place));
}
