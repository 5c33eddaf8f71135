import type { KindName, When } from '../../../core/rules/kinds/registry';
import { averageBench } from './average';
import { bandsBench } from './bands';
import type { BenchKind } from './bench-kind';
import { compareBench } from './compare';

/** How each kind of condition is worked on. A new kind is its own file and one line here. */
export const BENCH_KINDS = { compare: compareBench, average: averageBench, bands: bandsBench } as const satisfies {
  [K in KindName]: BenchKind<Extract<When, { kind: K }>>;
};

/** The bench of a condition, typed for any condition: the registry pairs each name with the bench that takes it. */
export const benchOf = (when: When): BenchKind<When> => BENCH_KINDS[when.kind] as unknown as BenchKind<When>;
