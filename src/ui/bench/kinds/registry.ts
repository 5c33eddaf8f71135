import { entryOf } from '../../../core/values/entry-of';
import type { KindName, When } from '../../../core/rules/kinds/registry';
import { averageBench } from './average';
import { bandsBench } from './bands';
import { barBench } from './bar';
import type { BenchKind } from './bench-kind';
import { categoryBench } from './category';
import { changeBench } from './change';
import { compareBench } from './compare';
import { dateBench } from './date';
import { formulaBench } from './formula';
import { iconsBench } from './icons';
import { keyBench } from './key';
import { rankBench } from './rank';
import { repeatBench } from './repeat';
import { scaleBench } from './scale';
import { stateBench } from './state';
import { textBench } from './text';

/**
 * How conditions are worked on, in the order in which they are offered. A new kind is its own file and one line here.
 */
export const BENCH_KINDS = {
  compare: compareBench,
  bands: bandsBench,
  text: textBench,
  date: dateBench,
  state: stateBench,
  average: averageBench,
  rank: rankBench,
  repeat: repeatBench,
  key: keyBench,
  category: categoryBench,
  scale: scaleBench,
  bar: barBench,
  icons: iconsBench,
  formula: formulaBench,
  change: changeBench,
} as const satisfies { [K in KindName]: BenchKind<Extract<When, { kind: K }>> };

/** The bench of a condition, typed for any condition: the registry pairs each name with the bench that takes it. */
export const benchOf = (when: When): BenchKind<When> => entryOf(BENCH_KINDS, when.kind);
