import type { KindName, When } from '../../../core/rules/kinds/registry';
import { averageBench } from './average';
import { bandsBench } from './bands';
import type { BenchKind } from './bench-kind';
import { compareBench } from './compare';
import { plainBench } from './plain';

/** How conditions are worked on. A new kind is its own file and one line here; one that has none is told in words. */
export const BENCH_KINDS = { compare: compareBench, average: averageBench, bands: bandsBench } as const satisfies {
  [K in KindName]?: BenchKind<Extract<When, { kind: K }>>;
};
export type BenchKindName = keyof typeof BENCH_KINDS;

/** The bench of a condition, typed for any condition: the registry pairs each name with the bench that takes it. */
export function benchOf(when: When): Pick<BenchKind<When>, 'Condition' | 'Outcomes'> {
  const own = Object.hasOwn(BENCH_KINDS, when.kind) ? BENCH_KINDS[when.kind as BenchKindName] : undefined;
  return (own ?? plainBench) as unknown as BenchKind<When>;
}
