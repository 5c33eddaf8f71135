import { Fragment } from 'react';
import { counted } from '../../core/values/counted';
import { Button, Checkbox, Radio, SegmentedControl } from '@mantine/core';
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

const OUTCOMES: readonly { readonly when: OutcomeTime; readonly label: string; readonly description: string }[] = [
  { when: 'typing', label: 'while typing', description: 'The look changes with each letter.' },
  { when: 'leaving', label: 'after entering', description: 'The look changes once the answer is entered.' },
  {
    when: 'withheld',
    label: 'not yet',
    description: 'Results are hidden until you choose another option.',
  },
];

/** The settings for fillers. Changes apply at once. */
export function FillingTab({ sheet }: { readonly sheet: SheetId }) {
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
          keyFields.includes(field.id) ? 'holds answer keys' : field.hidden ? 'hidden in the sheet' : null
        }
        onChange={setField}
      />
      <div className={classes.acts}>
        <Button size="compact-sm" variant="default" onClick={() => void openSelected()}>
          Let fillers edit the selected cells
        </Button>
        {filling.openCells.length > 0 && (
          <Button size="compact-sm" variant="default" onClick={() => put({ openCells: [] })}>
            Lock the {counted(filling.openCells.length, 'single cell')} again
          </Button>
        )}
      </div>
      <OutcomeTimes value={filling.outcomes} onChange={(outcomes) => put({ outcomes })} />
      <Checkbox
        color="ink"
        label="Fillers see each other’s answers"
        checked={filling.showsOthers}
        onChange={(event) => put({ showsOthers: event.currentTarget.checked })}
      />
      <p className={classes.note}>
        Preview{' '}
        {READER_ROLES.map((role, at) => (
          <Fragment key={role}>
            {at > 0 && ' or '}
            <a href={withQuery(page, { as: role })}>as {LINK_ROLE_WORDS[role].noun}</a>
          </Fragment>
        ))}
        . Fillers get looks only. Rules, answer keys and formula results that depend on them are never sent.
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

const OutcomeTimes = ({ value, onChange }: OutcomeTimesProps) => (
  <Radio.Group<OutcomeTime>
    label="When fillers see results"
    value={value}
    onChange={onChange}
    className={classes.choices}
  >
    {OUTCOMES.map(({ when, label, description }) => (
      <Radio key={when} value={when} label={label} description={description} color="ink" />
    ))}
  </Radio.Group>
);

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
const FieldStates = ({ fields, stateOf: state, whyNever, onChange }: FieldStatesProps) => (
  <ul className={classes.list} aria-label="Access of fillers to each field">
    {fields.map((field) => (
      <li key={field.id} className={classes.item}>
        <b className={classes.who}>{field.label}</b>
        {whyNever(field) === null ? (
          <SegmentedControl
            size="xs"
            aria-label={`Access of fillers to ${field.label}`}
            value={state(field)}
            data={STATES}
            onChange={(to) => onChange(field, to)}
          />
        ) : (
          <span className={classes.note}>Always hidden: {whyNever(field)}</span>
        )}
      </li>
    ))}
  </ul>
);

const STATES: { value: FieldState; label: string }[] = [
  { value: 'sees', label: 'Can view' },
  { value: 'types', label: 'Can fill in' },
  { value: 'kept', label: 'Hidden' },
];
type FieldState = 'sees' | 'types' | 'kept';

const without = (ids: readonly string[], id: string): string[] => ids.filter((other) => other !== id);

/** Fields that an answer key once read stay withheld when its rule goes. */
const kept = (filling: Filling, keyFields: readonly string[]): string[] => [
  ...new Set([...filling.kept, ...keyFields]),
];
