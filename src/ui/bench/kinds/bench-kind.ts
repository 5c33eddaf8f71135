import type { ComponentType } from 'react';
import type { Key } from '../../../texts/texts';
import type { Contents } from '../../../core/rules/suggest/field-contents';
import type { Rule } from '../../../core/rules/shape/rule';
import type { When } from '../../../core/rules/kinds/registry';
import type { ShownField } from '../../../protocol/sheet-view';

export interface ConditionProps<W extends When = When> {
  readonly when: W;
  /** The field whose values are judged (the first, where there are several). */
  readonly field: ShownField | undefined;
  readonly fields: readonly ShownField[];
  readonly onChange: (when: W) => void;
}

/** How a kind of condition is worked on at the bench. */
export interface BenchKind<W extends When> {
  readonly title: Key<'bench'>;
  readonly says: Key<'bench'>;
  /** Contents of the cells, any of them, for which the kind is offered. */
  readonly needs: readonly Contents[] | 'anything';
  /** The part of the sentence between the fields and the look. */
  readonly Condition: ComponentType<ConditionProps<W>>;
  /** The part under the sentence, such as the looks of several outcomes. */
  readonly Outcomes?: ComponentType<ConditionProps<W>>;
  /** The picture of what is judged, for kinds that have another than the values themselves. */
  readonly Picture?: ComponentType<{ readonly rule: Rule }>;
}
