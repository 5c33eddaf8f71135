import { Popover } from '@mantine/core';
import { IconInfoCircle } from '@tabler/icons-react';
import { itemAt } from '../../core/values/item-at';
import type { TraceStep } from '../../core/rules/explain/trace';
import type { ActiveCell } from '../../protocol/sheet-view';
import { useSession } from '../sheet/use-session';
import shared from './CellLine.module.css';
import classes from './TraceLine.module.css';
import { sheetPageUrl } from '../../protocol/sheet-url';
import { withQuery } from '../../protocol/with-query';

const PROPERTY_WORDS: Readonly<Record<string, string>> = {
  fill: 'fill',
  text: 'text colour',
  bold: 'bold',
  italic: 'italic',
  underline: 'underline',
  strike: 'strike-through',
  border: 'border',
  number: 'number format',
  hideValue: 'hidden value',
};

const propertyWords = (set: Record<string, unknown>): string =>
  Object.keys(set)
    .map((name) => PROPERTY_WORDS[name] ?? name)
    .join(', ');

/** Why the selected cell looks as it does: the rules that paint it, and the whole trace behind a sign. */
export function TraceLine({ cell }: { readonly cell: ActiveCell }) {
  const painting = cell.trace.filter((step) => step.state === 'matched' && Object.keys(step.set).length > 0);
  const asked = cell.trace.filter((step) => step.state !== 'off').length;
  return (
    <Popover width="min(420px, 94vw)" position="bottom-end" shadow="md" withArrow={false}>
      <PaintingRules steps={painting} />
      <Popover.Target>
        <button
          type="button"
          className={shared.why}
          aria-label={`Why this cell looks so: ${painting.length ? painting.map((step) => step.name).join(', ') : 'no rule paints it'}`}
        >
          <IconInfoCircle size={18} stroke={1.5} aria-hidden />
          {painting.length === 0 && (
            <span className={shared.words}>
              {asked
                ? `${asked} ${asked === 1 ? 'rule reaches' : 'rules reach'} this cell, none paints it`
                : 'no rule reaches this cell'}
            </span>
          )}
        </button>
      </Popover.Target>
      <Popover.Dropdown>
        <TraceSteps cell={cell} />
      </Popover.Dropdown>
    </Popover>
  );
}

/** The rules that paint a cell, each a way to where it is changed. */
function PaintingRules({ steps }: { readonly steps: readonly TraceStep[] }) {
  const session = useSession();
  return (
    <span className={shared.painting}>
      {steps.map(({ rule, name, set }) => (
        <button
          key={rule}
          type="button"
          className={shared.rule}
          title={`Open the rule “${name}”`}
          onClick={() => session.rules.openRule(rule, true)}
        >
          <b>{name}</b> → {propertyWords(set)}
        </button>
      ))}
    </span>
  );
}

/** Every rule that reaches a cell: whether it applies, what it compared, what it sets, and who came before it. */
function TraceSteps({ cell }: { readonly cell: ActiveCell }) {
  const session = useSession();
  return (
    <>
      {cell.trace.length === 0 && <p style={{ margin: 0 }}>No rule reads or paints this cell.</p>}
      <ol className={classes.steps} aria-label="Trace">
        {cell.trace.map((step) => (
          <li key={step.rule} className={classes.step} data-state={step.state}>
            <button type="button" className={classes.name} onClick={() => session.rules.openRule(step.rule, true)}>
              {step.name}
            </button>{' '}
            · {STATE_WORDS[step.state]}
            {step.compared && (
              <span className={classes.detail}>
                {step.state === 'not-matched' ? 'Asked whether' : ''} {step.compared}
                {step.cell && <> ({step.cell})</>}
              </span>
            )}
            {step.note && <span className={classes.detail}>{step.note}</span>}
            {Object.keys(step.set).length > 0 && <span className={classes.detail}>Sets {propertyWords(step.set)}</span>}
            {step.lost.length > 0 && <span className={classes.detail}>{lostWords(step, cell.trace)}</span>}
          </li>
        ))}
      </ol>
      <p className={classes.past}>
        <a href={withQuery(sheetPageUrl(session.sheet, 'history'), { row: cell.row, field: cell.field })}>
          What it held before
        </a>
      </p>
    </>
  );
}

const STATE_WORDS: Record<TraceStep['state'], string> = {
  matched: 'applies',
  'not-matched': 'does not apply',
  off: 'is switched off',
  problem: 'cannot work',
  'settled-before': 'would apply, but an earlier rule settles',
};

function lostWords({ lost }: TraceStep, trace: readonly TraceStep[]): string {
  const nameOf = (id: string) => trace.find((step) => step.rule === id)?.name ?? id;
  const winners = [...new Set(lost.map(({ to }) => to))];
  return winners
    .map(
      (winner) =>
        `“${nameOf(winner)}” comes first for its ${[...new Set(lost.filter(({ to }) => to === winner).map(({ property }) => PROPERTY_WORDS[itemAt(property.split('.'), 0)]))].join(', ')}`,
    )
    .join('; ');
}
