import type { Operation } from '../change';
import { LAYOUT } from '../effect';
import type { PartId } from '../ids';
import type { SheetPart } from '../sheet-part';
import type { OperationKind, OperationOf } from './operation-kind';

declare module '../change' {
  interface OperationTypes {
    'put-parts': { readonly kind: 'put-parts'; readonly parts: readonly SheetPart[] };
    'remove-parts': { readonly kind: 'remove-parts'; readonly parts: readonly PartId[] };
  }
}

const inverseOf = (before: readonly SheetPart[], added: readonly PartId[]): Operation[] => [
  ...(added.length ? [{ kind: 'remove-parts' as const, parts: added }] : []),
  ...(before.length ? [{ kind: 'put-parts' as const, parts: before }] : []),
];

export const putParts: OperationKind<OperationOf<'put-parts'>> = {
  schema: ({ parts }) => ({ parts }),
  apply(sheet, { parts }) {
    const { before, added } = sheet.parts.put(parts);
    return { effects: [LAYOUT], inverse: inverseOf(before, added) };
  },
  words: ({ parts }) => parts.map(partWords),
  size: () => 1,
  restrict: () => [],
  describes: true,
};

export const removeParts: OperationKind<OperationOf<'remove-parts'>> = {
  schema: ({ partIds }) => ({ parts: partIds }),
  apply: (sheet, { parts }) => ({ effects: [LAYOUT], inverse: inverseOf(sheet.parts.take(parts), []) }),
  words: ({ parts }) => [
    parts.length === 1 ? 'a name, a merge or a saved look deleted' : 'several names, merges or saved looks deleted',
  ],
  size: () => 1,
  restrict: () => [],
};

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
      return `version “${part.name}” named`;
    case 'rule-set':
      return `rule set “${part.name}” used`;
    case 'filling':
      return 'what fillers may do and see';
  }
}
