import type { Look } from '../../looks/look';
import type { RuleId } from '../../sheet/ids';
import type { When } from '../kinds/registry';
import type { Paints, Reads, Trial } from '../terms';
import type { Quiet } from './quiet';

/** A rule as it is kept: fields by id. Rule files give labels instead (see read-rule-set.ts). */
export interface Rule {
  readonly id: RuleId;
  readonly name: string;
  readonly on: boolean;
  readonly settles: boolean;
  readonly reads: Reads;
  readonly when: When;
  readonly paints: Paints;
  readonly look?: Look;
  /** Why it matters, and what to do about it: for readers of the legend. */
  readonly note?: string;
  /** The name of the group in which the legend shows it, with those before and after it that have the same. */
  readonly group?: string;
  readonly trials?: readonly Trial[];
  /** When its findings are reported, where not at once. Its look never waits. */
  readonly quiet?: Quiet;
}
