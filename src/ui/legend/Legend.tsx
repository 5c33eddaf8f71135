'use client';

import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors, type DragEndEvent } from '@dnd-kit/core';
import { restrictToVerticalAxis } from '@dnd-kit/modifiers';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { useDeferredValue, useMemo } from 'react';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './Legend.module.css';
import { AdviceList } from './AdviceList';
import { LegendHead } from './LegendHead';
import { LegendItem } from './LegendItem';
import { NewRule } from './NewRule';
import { useTouching } from './use-touching';

/** The rules in order of precedence, each with what it shows and how much it paints. */
export function Legend() {
  const session = useSession();
  const legend = useDeferredValue(useSessionState((state) => state.legend));
  const touching = useTouching();
  // The same list as long as the order is the same: a new one renders every entry again.
  const order = legend.map(({ id }) => id).join(' ');
  const ids = useMemo(() => (order === '' ? [] : order.split(' ')), [order]);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );

  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id)
      session.rules.moveRule(
        String(active.id),
        legend.findIndex((entry) => entry.id === over.id),
      );
  };

  return (
    <nav className={classes.legend} aria-label="Legend">
      <LegendHead />
      {legend.length === 0 && <p className={classes.empty}>No rules yet. Select a field, then make a rule over it.</p>}
      <DndContext id="legend" sensors={sensors} collisionDetection={closestCenter} modifiers={[restrictToVerticalAxis]} onDragEnd={onDragEnd}>
        <SortableContext items={ids} strategy={verticalListSortingStrategy}>
          <ol className={classes.list} hidden={legend.length === 0}>
            {legend.map(
              (entry, at) => (touching?.includes(entry.id) ?? true) && <LegendItem key={entry.id} entry={entry} place={at} count={legend.length} />,
            )}
          </ol>
        </SortableContext>
      </DndContext>
      <div className={classes.foot}>
        <AdviceList />
        <NewRule />
      </div>
    </nav>
  );
}
