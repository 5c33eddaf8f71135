'use client';

import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import { restrictToVerticalAxis } from '@dnd-kit/modifiers';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { Fragment, Suspense, useDeferredValue, useMemo, useState } from 'react';
import { useTranslations } from 'use-intl';
import { LaterChosenRules } from '../sheet/later';
import { itemAt } from '../../core/values/item-at';
import { ruleGroups } from '../../core/rules/shape/rule-groups';
import { meaningsOf } from '../../engine/view/meanings-of';
import type { LegendEntry, ShownField } from '../../protocol/sheet-view';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './Legend.module.css';
import { AdviceList } from './advice/AdviceList';
import { CarryElsewhere } from './rule-sets/CarryElsewhere';
import { DraftList } from './drafts/DraftList';
import { GroupHead } from './GroupHead';
import { LegendHead } from './LegendHead';
import { LegendItem } from './LegendItem';
import { NameGroup } from './NameGroup';
import { NewRule } from './new-rule/NewRule';
import { RuleSetNotice } from './rule-sets/RuleSetNotice';
import { RuleSets } from './rule-sets/RuleSets';
import { ReaderLegend } from './ReaderLegend';
import { useTouching } from './use-touching';

const NO_FIELDS: readonly ShownField[] = [];

/** The rules in order of precedence, each with what it shows and how much it paints. */
export function Legend() {
  const t = useTranslations('legend');
  const legend = useDeferredValue(useSessionState((state) => state.legend));
  const isReading = useSessionState((state) => state.isReading);
  const isShown = useSessionState((state) => state.frame !== null);
  const fields = useSessionState((state) => state.frame?.fields) ?? NO_FIELDS;
  if (isReading)
    return (
      <nav className={classes.legend} data-help="order" aria-label={t('legend')}>
        <LegendHead />
        <div className={classes.reading}>
          <ReaderLegend meanings={meaningsOf(legend, fields)} />
        </div>
      </nav>
    );
  return (
    <nav className={classes.legend} data-help="order" aria-label={t('legend')}>
      <LegendHead />
      <Chosen />
      <NameGroup />
      <CarryElsewhere />
      <RuleSets />
      {isShown && legend.length === 0 && <p className={classes.empty}>{t('noRulesYetSelect')}</p>}
      <RuleList legend={legend} />
      <div className={classes.foot}>
        <RuleSetNotice />
        <AdviceList />
        <DraftList />
        <NewRule />
      </div>
    </nav>
  );
}

/** What the selected rules have in common, once some are selected. */
function Chosen() {
  const hasChosen = useSessionState((state) => state.chosen.length > 0);
  return (
    hasChosen && (
      <Suspense fallback={null}>
        <LaterChosenRules />
      </Suspense>
    )
  );
}

/** The rules, to be put in another order by dragging or by the keyboard. */
function RuleList({ legend }: { readonly legend: readonly LegendEntry[] }) {
  const session = useSession();
  const touching = useTouching();
  // The same list while the order is the same: a new one renders every entry again.
  const order = legend.map(({ id }) => id).join(' ');
  const ids = useMemo(() => (order === '' ? [] : order.split(' ')), [order]);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );

  const [folded, setFolded] = useState<readonly string[]>([]);
  const fold = (name: string) =>
    setFolded(folded.includes(name) ? folded.filter((other) => other !== name) : [...folded, name]);
  const isShown = ({ id, rule }: LegendEntry): boolean =>
    (touching?.includes(id) ?? true) && !folded.includes(rule.group ?? '');

  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id)
      session.rules.moveRule(
        String(active.id),
        legend.findIndex((entry) => entry.id === over.id),
      );
  };
  return (
    <DndContext
      id="legend"
      sensors={sensors}
      collisionDetection={closestCenter}
      modifiers={[restrictToVerticalAxis]}
      onDragEnd={onDragEnd}
    >
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        <ol className={classes.list} hidden={legend.length === 0}>
          {ruleGroups(legend, ({ rule }) => rule.group).map(({ name, entries }) => (
            <Fragment key={itemAt(entries, 0).id}>
              {name !== null && (
                <GroupHead name={name} entries={entries} isFolded={folded.includes(name)} onFold={() => fold(name)} />
              )}
              {entries.map(
                (entry) =>
                  isShown(entry) && (
                    <LegendItem key={entry.id} entry={entry} place={legend.indexOf(entry)} count={legend.length} />
                  ),
              )}
            </Fragment>
          ))}
        </ol>
      </SortableContext>
    </DndContext>
  );
}
