import { Suspense, useDeferredValue, type ReactNode } from 'react';
import { TOUR } from '../help/tour-name';
import {
  LaterAllowedValues,
  LaterBench,
  LaterByExample,
  LaterCommandPalette,
  LaterFindPanel,
  LaterHelp,
  LaterLinkedRows,
  LaterStylePanel,
  LaterTour,
} from './later';
import type { SessionState } from './session-state';
import { useSessionState } from './use-session';

interface OnPanelProps {
  readonly panel: NonNullable<SessionState['panel']>;
  readonly children: ReactNode;
}

/** A part of the screen that is there while its panel is open. */
function OnPanel({ panel, children }: OnPanelProps) {
  const isOpen = useSessionState((state) => state.panel === panel);
  return isOpen && <Suspense fallback={null}>{children}</Suspense>;
}

/** The way through the rows of a linked table, where the sheet shows one. */
export function OfLinkedTable() {
  const isLinked = useSessionState((state) => Boolean(state.frame?.linked));
  return (
    isLinked && (
      <Suspense fallback={null}>
        <LaterLinkedRows />
      </Suspense>
    )
  );
}

/** What opens over the sheet of those who make rules. */
export const PanelsOver = () => (
  <>
    <OnPanel panel="commands">
      <LaterCommandPalette />
    </OnPanel>
    <OnPanel panel="values">
      <LaterAllowedValues />
    </OnPanel>
  </>
);

/** What stands above the grid while it is open. */
export const PanelsAbove = ({ isMaker }: { readonly isMaker: boolean }) => (
  <>
    {isMaker && (
      <OnPanel panel="style">
        <LaterStylePanel />
      </OnPanel>
    )}
    <OnPanel panel="find">
      <LaterFindPanel />
    </OnPanel>
  </>
);

/** The bench, while a rule lies on it, or is made from examples. */
export function OnBench() {
  // Rendered as deferred work, so that the sheet shows the rule's cells first; typing is never deferred.
  const isUp = useDeferredValue(useSessionState((state) => state.bench !== null));
  const isByExample = useSessionState((state) => state.byExample !== null);
  if (!isUp && !isByExample) return null;
  return <Suspense fallback={null}>{isByExample ? <LaterByExample /> : <LaterBench />}</Suspense>;
}

/** The help or the tour, while it is asked for. */
export function Help() {
  const help = useSessionState((state) => state.help);
  return help !== null && <Suspense fallback={null}>{help === TOUR ? <LaterTour /> : <LaterHelp />}</Suspense>;
}
