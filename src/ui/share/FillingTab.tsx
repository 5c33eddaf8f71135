import { Fragment } from 'react';
import { Button, Checkbox, Radio, SegmentedControl } from '@mantine/core';
import { useTranslations } from 'use-intl';
import { labelled } from '../../texts/texts';
import type { Key } from '../../texts/texts';
import { columnLetters } from '../../core/sheet/address';
import type { SheetId } from '../../core/sheet/ids';
import type { Filling, OutcomeTime } from '../../core/sheet/sheet-part';
import type { ShownField } from '../../protocol/sheet-view';
import { LINK_ROLE_WORDS } from '../../core/sharing/role-words';
import { READER_ROLES } from '../../core/sharing/role';
import { selectedAreas } from '../grid/engine/selection';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './Share.module.css';
import { sheetPageUrl } from '../../protocol/sheet-url';
import { withQuery } from '../../protocol/with-query';

/** Single cells that can be open. */
const MAX_CELLS = 5000;

const OUTCOMES: readonly {
  readonly when: OutcomeTime;
  readonly label: Key<'share'>;
  readonly description: Key<'share'>;
}[] = [
  { when: 'typing', label: 'whileTyping', description: 'lookChangesEachLetter' },
  { when: 'leaving', label: 'afterEntering', description: 'lookChangesOnceAnswer' },
  {
    when: 'withheld',
    label: 'notYet',
    description: 'resultsHiddenUntilYou',
  },
];

/** The settings for fillers. Changes apply at once. */
export function FillingTab({ sheet }: { readonly sheet: SheetId }) {
  const t = useTranslations('share');
  const session = useSession();
  const frame = useSessionState((state) => state.frame);
  if (!frame) return null;
  const { filling, keyFields, fields } = frame;
  const put = (change: Partial<Filling>) =>
    void session.withErrorMessage(
      session.ask({
        kind: 'change',
        operations: [{ kind: 'put-parts', parts: [{ ...filling, kept: kept(filling, keyFields), ...change }] }],
      }),
    );
  const setField = (field: ShownField, to: FieldState) =>
    put({
      open: [...without(filling.open, field.id), ...(to === 'types' ? [field.id] : [])],
      kept: [...without(kept(filling, keyFields), field.id), ...(to === 'kept' ? [field.id] : [])],
    });
  const page = sheetPageUrl(sheet);
  // A fresh sheet has many fields that nobody has named, and nobody fills in.
  const isNamed = ({ id, label }: ShownField, column: number): boolean =>
    label !== columnLetters(column) || filling.open.includes(id) || filling.kept.includes(id);
  return (
    <div className={classes.tab}>
      <FieldStates
        fields={fields.filter(isNamed)}
        stateOf={(field) => stateOf(field, filling)}
        whyNever={(field) =>
          keyFields.includes(field.id) ? t('holdsAnswerKeys') : field.hidden ? t('hiddenInTheSheet') : null
        }
        onChange={setField}
      />
      <div className={classes.acts}>
        <Button size="compact-sm" variant="default" onClick={() => void openSelected()}>
          {t('letFillersEditSelected')}
        </Button>
        {filling.openCells.length > 0 && (
          <Button size="compact-sm" variant="default" onClick={() => put({ openCells: [] })}>
            {t('lockCountSingleCells', { count: filling.openCells.length })}
          </Button>
        )}
      </div>
      <OutcomeTimes value={filling.outcomes} onChange={(outcomes) => put({ outcomes })} />
      <Checkbox
        color="ink"
        label={t('fillersSeeEachOthers')}
        checked={filling.showsOthers}
        onChange={(event) => put({ showsOthers: event.currentTarget.checked })}
      />
      <p className={classes.note}>
        {t('preview')}{' '}
        {READER_ROLES.map((role, at) => (
          <Fragment key={role}>
            {at > 0 && ` ${t('or')} `}
            <a href={withQuery(page, { as: role })}>{t('asNoun', { noun: LINK_ROLE_WORDS[role].noun })}</a>
          </Fragment>
        ))}
        {t('fillersGetLooksOnly')}
      </p>
    </div>
  );

  async function openSelected(): Promise<void> {
    const cells = await session.ask({
      kind: 'ask-cells',
      areas: selectedAreas(session.get().selection),
      most: MAX_CELLS,
    });
    const known = new Set(filling.openCells.map(({ row, field }) => `${row} ${field}`));
    put({ openCells: [...filling.openCells, ...cells.filter(({ row, field }) => !known.has(`${row} ${field}`))] });
  }
}

interface OutcomeTimesProps {
  readonly value: OutcomeTime;
  readonly onChange: (value: OutcomeTime) => void;
}

const OutcomeTimes = ({ value, onChange }: OutcomeTimesProps) => {
  const t = useTranslations('share');
  return (
    <Radio.Group<OutcomeTime>
      label={t('whenFillersSeeResults')}
      value={value}
      onChange={onChange}
      className={classes.choices}
    >
      {OUTCOMES.map(({ when, label, description }) => (
        <Radio key={when} value={when} label={t(label)} description={t(description)} color="ink" />
      ))}
    </Radio.Group>
  );
};

const stateOf = ({ id }: ShownField, { open, kept: hidden }: Filling): FieldState =>
  open.includes(id) ? 'types' : hidden.includes(id) ? 'kept' : 'sees';

interface FieldStatesProps {
  readonly fields: readonly ShownField[];
  readonly stateOf: (field: ShownField) => FieldState;
  /** Why fillers never get a field; null where the owner decides. */
  readonly whyNever: (field: ShownField) => string | null;
  readonly onChange: (field: ShownField, to: FieldState) => void;
}

/** What fillers do with each field. */
const FieldStates = ({ fields, stateOf: state, whyNever, onChange }: FieldStatesProps) => {
  const t = useTranslations('share');
  return (
    <ul className={classes.list} aria-label={t('accessFillersEachField')}>
      {fields.map((field) => (
        <li key={field.id} className={classes.item}>
          <b className={classes.who}>{field.label}</b>
          {whyNever(field) === null ? (
            <SegmentedControl
              size="xs"
              aria-label={t('accessFillersLabel', { label: field.label })}
              value={state(field)}
              data={labelled(STATES, (key) => t(key))}
              onChange={(to) => onChange(field, to)}
            />
          ) : (
            <span className={classes.note}>{t('alwaysHiddenField', { field: whyNever(field) ?? '' })}</span>
          )}
        </li>
      ))}
    </ul>
  );
};

const STATES: { value: FieldState; label: Key<'share'> }[] = [
  { value: 'sees', label: 'canView' },
  { value: 'types', label: 'canFill' },
  { value: 'kept', label: 'hidden' },
];
type FieldState = 'sees' | 'types' | 'kept';

const without = (ids: readonly string[], id: string): string[] => ids.filter((other) => other !== id);

/** Fields that an answer key once read stay withheld when its rule goes. */
const kept = (filling: Filling, keyFields: readonly string[]): string[] => [
  ...new Set([...filling.kept, ...keyFields]),
];
