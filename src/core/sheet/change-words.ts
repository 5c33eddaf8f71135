import type { Operation } from './change';
import type { SheetPart } from './sheet-part';

const counted = (count: number, one: string): string => `${count.toLocaleString('en')} ${one}${count === 1 ? '' : 's'}`;
/** Rules and such that are named one by one. */
const MAX_NAMED = 3;

interface Beside {
  /** The inverse of the change: it shows what was there before. */
  readonly inverse: readonly Operation[];
  /** How many cells or rows each operation is about, where not all of them are given. */
  readonly counts?: readonly number[];
}

/** What a change did, in a few words each: "12 cells entered", "rule “Low oxygen” made". */
export function changeWords(operations: readonly Operation[], { inverse, counts }: Beside): string[] {
  const made = new Set(inverse.flatMap((operation) => (operation.kind === 'remove-rules' ? operation.rules : [])));
  return [...new Set(operations.flatMap((operation, at) => wordsOf(operation, { made, count: counts?.[at] })))];
}

function wordsOf(
  operation: Operation,
  { made, count }: { readonly made: ReadonlySet<string>; readonly count: number | undefined },
): string[] {
  switch (operation.kind) {
    case 'set-cells':
      return [`${counted(count ?? operation.cells.length, 'cell')} entered`];
    case 'insert-rows':
      return [`${counted(count ?? operation.rows.length, 'row')} added`];
    case 'remove-rows':
      return [`${counted(count ?? operation.rows.length, 'row')} removed`];
    case 'change-rows':
      return [
        `${counted(count ?? operation.rows.length, 'row')} ${operation.rows.every(({ key }) => key !== undefined) ? 'moved' : 'changed'}`,
      ];
    case 'put-fields':
      return [`${counted(operation.fields.length, 'field')} changed`];
    case 'remove-fields':
      return [`${counted(operation.fields.length, 'field')} removed`];
    case 'set-styles':
      return [`${counted(count ?? operation.cells.length, 'cell')} formatted`];
    case 'put-rules':
      return named(
        operation.rules.map(({ id, rule }) => `rule “${rule.name}” ${made.has(id) ? 'made' : 'changed'}`),
        'other rule',
      );
    case 'remove-rules':
      return [`${counted(operation.rules.length, 'rule')} removed`];
    case 'put-parts':
      return operation.parts.map(partWords);
    case 'remove-parts':
      return [
        operation.parts.length === 1
          ? 'something that lies over the cells removed'
          : 'several things that lie over the cells removed',
      ];
  }
}

function partWords(part: SheetPart): string {
  switch (part.kind) {
    case 'name':
      return `name ${part.name} given`;
    case 'merge':
      return 'cells merged';
    case 'freeze':
      return 'fields held in view';
    case 'bands':
      return 'records shaded';
    case 'dismissal':
      return 'advice dismissed';
    case 'look':
      return `look “${part.name}” saved`;
    case 'snapshot':
      return `moment “${part.name}” named`;
    case 'rule-set':
      return `rule set “${part.name}” used`;
    case 'filling':
      return 'what fillers may do and see';
  }
}

const named = (names: readonly string[], one: string): string[] =>
  names.length > MAX_NAMED ? [...names.slice(0, MAX_NAMED), counted(names.length - MAX_NAMED, one)] : [...names];
