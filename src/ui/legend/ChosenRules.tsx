import { SegmentedControl } from '@mantine/core';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { labelled } from '../../texts/texts';
import type { Rule } from '../../core/rules/shape/rule';
import type { Paints } from '../../core/rules/terms';
import type { FieldId } from '../../core/sheet/ids';
import { useSession, useSessionState } from '../sheet/use-session';
import { fieldsRead } from '../bench/fields-read';
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
  const t = useTranslations('legend');
  const session = useSession();
  const chosen = useSessionState((state) => state.chosen);
  const legend = useSessionState((state) => state.legend);
  const fields = useSessionState((state) => state.frame?.fields) ?? [];
  if (chosen.length === 0) return null;
  const { rules } = session;
  const own = legend.filter(({ id }) => chosen.includes(id)).map(({ rule }) => rule);
  const read = [...new Set(own.flatMap(({ reads }) => fieldsRead(reads, fields)))];
  return (
    <div className={classes.chosen} role="group" aria-label={t('selectedRules')}>
      <ChosenPaints
        painted={same(own, ({ paints }) => paints)}
        fieldsRead={read}
        onPick={(paints) => rules.changeRules(chosen, { paints })}
      />
      <span className={classes.part}>
        <span>{t('read')}</span>
        <PickFields label={t('fieldsSelectedRulesRead')} value={read} onPick={(ids) => rules.readFields(chosen, ids)} />
      </span>
      <span className={classes.part}>
        <span>{t('look')}</span>
        <PickLook
          label={t('lookSelectedRules')}
          value={same(own, ({ look }) => look) ?? null}
          nothing={t('several')}
          onPick={(look) => look && rules.changeRules(chosen, { look })}
        />
      </span>
    </div>
  );
}

/** What the selected rules paint. */
function ChosenPaints({
  painted,
  fieldsRead: read,
  onPick,
}: {
  /** Undefined where they differ. */
  readonly painted: Paints | undefined;
  readonly fieldsRead: readonly FieldId[];
  readonly onPick: (paints: Paints) => void;
}) {
  const t = useTranslations('legend');
  // Fields that were just chosen to be painted are named next.
  const [isNew, setNew] = useState(false);
  return (
    <>
      <span className={classes.part}>
        <span>{t('paint')}</span>
        <SegmentedControl
          size="xs"
          aria-label={t('whatSelectedRulesPaint')}
          value={painted === undefined ? '' : typeof painted === 'object' ? 'fields' : painted}
          data={labelled(PAINTS, (key) => t(key))}
          onChange={(next) => {
            setNew(next === 'fields');
            onPick(next === 'record' || next === 'cell' ? next : { fields: read });
          }}
        />
      </span>
      {typeof painted === 'object' && (
        <span className={classes.part}>
          <PickFields
            label={t('fieldsSelectedRulesPaint')}
            between="and"
            value={painted.fields}
            opensAtOnce={isNew}
            onPick={(fields) => onPick({ fields })}
          />
        </span>
      )}
    </>
  );
}

/** What all rules have in common; undefined where they differ. */
function same<T>(rules: readonly Rule[], part: (rule: Rule) => T): T | undefined {
  const [first, ...others] = rules.map(part);
  return others.every((other) => JSON.stringify(other) === JSON.stringify(first)) ? first : undefined;
}
