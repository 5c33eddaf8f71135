import { average, type AverageWhen } from './average';
import { bands, type BandsWhen } from './bands';
import { compare, type CompareWhen } from './compare';
import type { ConditionKind } from './kind';

/** A condition: the `when` of a rule. */
export type When = CompareWhen | AverageWhen | BandsWhen;
export type KindName = When['kind'];

/** Every kind of condition. A new kind is its own file and one line here. */
export const KINDS = { compare, average, bands } as const satisfies { [K in KindName]: ConditionKind<Extract<When, { kind: K }>> };

export const KIND_NAMES = Object.keys(KINDS) as KindName[];

/** The kind of a condition, typed for any condition: the registry pairs each name with the kind that takes it. */
export const kindOf = (when: When): ConditionKind<When> => KINDS[when.kind] as unknown as ConditionKind<When>;
