import { SegmentedControl } from '@mantine/core';
import { useState } from 'react';
import type { Rule } from '../../core/rules/shape/rule';
import type { Paints } from '../../core/rules/terms';
import { useSession, useSessionState } from '../sheet/use-session';
import { PickFields } from '../bench/parts/PickFields';
import { PickLook } from '../bench/look/PickLook';
import classes from './ChosenRules.module.css';

const PAINTS = [
  { value: 'cell', label: 'cell' },
  { value: 'record', label: 'record' },
  { value: 'fields', label: 'fields' },
] as const;

/** What the selected rules of the legend read, paint and look like, changed for all of them at once. */
export function ChosenRules() {
  const session = useSession();
  const chosen = useSessionState((state) => state.chosen);
  const legend = useSessionState((state) => state.legend);
  // Fields that were just chosen to be painted are named next.
  const [isNew, setNew] = useState(false);
  if (chosen.length === 0) return null;
  const { rules } = session;
  const own = legend.filter(({ id }) => chosen.includes(id)).map(({ rule }) => rule);
  const fieldsRead = [...new Set(own.flatMap(({ reads }) => ('fields' in reads ? reads.fields : [])))];
  const painted = same(own, ({ paints }) => paints);
  const paint = (paints: Paints) => rules.changeRules(chosen, { paints });
  return (
    <div className={classes.chosen} role="group" aria-label="Selected rules">
      <span className={classes.part}>
        <span>Paint</span>
        <SegmentedControl
          size="xs"
          aria-label="What the selected rules paint"
          value={painted === undefined ? '' : typeof painted === 'object' ? 'fields' : painted}
          data={[...PAINTS]}
          onChange={(next) => {
            setNew(next === 'fields');
            paint(next === 'record' || next === 'cell' ? next : { fields: fieldsRead });
          }}
        />
      </span>
      {typeof painted === 'object' && (
        <span className={classes.part}>
          <PickFields
            label="Fields that the selected rules paint"
            between="and"
            value={painted.fields}
            opensAtOnce={isNew}
            onPick={(fields) => paint({ fields })}
          />
        </span>
      )}
      <span className={classes.part}>
        <span>Read</span>
        <PickFields
          label="Fields that the selected rules read"
          value={fieldsRead}
          onPick={(fields) => rules.changeRules(chosen, { reads: { fields } })}
        />
      </span>
      <span className={classes.part}>
        <span>Look</span>
        <PickLook
          label="Look of the selected rules"
          value={same(own, ({ look }) => look) ?? null}
          nothing="several"
          onPick={(look) => look && rules.changeRules(chosen, { look })}
        />
      </span>
    </div>
  );
}

/** What all rules have in common; undefined where they differ. */
function same<T>(rules: readonly Rule[], part: (rule: Rule) => T): T | undefined {
  const [first, ...others] = rules.map(part);
  return others.every((other) => JSON.stringify(other) === JSON.stringify(first)) ? first : undefined;
}
