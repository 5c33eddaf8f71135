import { useSessionState } from '../sheet/use-session';

const NONE: readonly number[] = [];

/** How many cells have each outcome of the rule on the bench. */
export const useOutcomeCounts = (): readonly number[] =>
  useSessionState((state) => state.legend.find((entry) => entry.id === state.bench?.draft.id)?.outcomes) ?? NONE;
