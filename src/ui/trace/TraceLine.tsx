import { Popover } from '@mantine/core';
import { IconInfoCircle } from '@tabler/icons-react';
import { useTranslations } from 'use-intl';
import { hasKey } from '../../core/values/typed-keys';
import type { Texts } from '../../texts/texts';
import { itemAt } from '../../core/values/item-at';
import type { TraceStep } from '../../core/rules/explain/trace';
import type { ActiveCell } from '../../protocol/sheet-view';
import { useSession } from '../sheet/use-session';
import shared from './CellLine.module.css';
import classes from './TraceLine.module.css';
import { sheetPageUrl } from '../../protocol/sheet-url';
import { withQuery } from '../../protocol/with-query';

const PROPERTY_WORDS = {
  fill: 'fill',
  text: 'textColour',
  bold: 'bold',
  italic: 'italic',
  underline: 'underline',
  strike: 'strikeThrough',
  border: 'border',
  number: 'numberFormat',
  hideValue: 'hiddenValue',
} as const;

/** A property of a look in words; one without is its own name. */
const propertyWord = (name: string, t: Texts<'trace'>): string =>
  hasKey(PROPERTY_WORDS, name) ? t(PROPERTY_WORDS[name]) : name;

const propertyWords = (set: Record<string, unknown>, t: Texts<'trace'>): string =>
  Object.keys(set)
    .map((name) => propertyWord(name, t))
    .join(', ');

/** Why the selected cell looks as it does: the rules that paint it, and the whole trace behind a sign. */
export function TraceLine({ cell }: { readonly cell: ActiveCell }) {
  const t = useTranslations('trace');
  const painting = cell.trace.filter((step) => step.state === 'matched' && Object.keys(step.set).length > 0);
  const asked = cell.trace.filter((step) => step.state !== 'off').length;
  return (
    <Popover width="min(420px, 94vw)" position="bottom-end" shadow="md" withArrow={false} trapFocus returnFocus>
      <PaintingRules steps={painting} />
      <Popover.Target>
        <button
          type="button"
          className={shared.why}
          aria-label={t('whyCellLooksSo', {
            painting: painting.length ? painting.map((step) => step.name).join(', ') : t('noRulePaintsIt'),
          })}
        >
          <IconInfoCircle size={18} stroke={1.5} aria-hidden />
          {painting.length === 0 && (
            <span className={shared.words}>{asked ? t('askedRulesReachCell', { asked }) : t('noRuleReachesCell')}</span>
          )}
        </button>
      </Popover.Target>
      <Popover.Dropdown data-help="why" aria-label={t('trace')}>
        <TraceSteps cell={cell} />
      </Popover.Dropdown>
    </Popover>
  );
}

/** The rules that paint a cell, each a way to where it is changed. */
function PaintingRules({ steps }: { readonly steps: readonly TraceStep[] }) {
  const t = useTranslations('trace');
  const session = useSession();
  return (
    <span className={shared.painting}>
      {steps.map(({ rule, name, set }) => (
        <button
          key={rule}
          type="button"
          className={shared.rule}
          title={t('openTheRuleName', { name })}
          onClick={() => session.rules.openRule(rule, true)}
        >
          <b>{name}</b> → {propertyWords(set, t)}
        </button>
      ))}
    </span>
  );
}

/** Every rule that reaches a cell: whether it applies, what it compared, what it sets, and who came before it. */
function TraceSteps({ cell }: { readonly cell: ActiveCell }) {
  const t = useTranslations('trace');
  const session = useSession();
  return (
    <>
      {cell.trace.length === 0 && <p style={{ margin: 0 }}>{t('noRuleReadsPaints')}</p>}
      <ol className={classes.steps} aria-label={t('trace')}>
        {cell.trace.map((step) => (
          <li key={step.rule} className={classes.step} data-state={step.state}>
            <button type="button" className={classes.name} onClick={() => session.rules.openRule(step.rule, true)}>
              {step.name}
            </button>{' '}
            · {t(STATE_WORDS[step.state])}
            {step.compared && (
              <span className={classes.detail}>
                {step.state === 'not-matched' ? t('askedWhether') : ''} {step.compared}
                {step.cell && <> ({step.cell})</>}
              </span>
            )}
            {step.note && <span className={classes.detail}>{step.note}</span>}
            {step.quiet && <span className={classes.detail}>{t('foundWhen', { when: step.quiet })}</span>}
            {Object.keys(step.set).length > 0 && (
              <span className={classes.detail}>{t('setsSet', { set: propertyWords(step.set, t) })}</span>
            )}
            {step.lost.length > 0 && <span className={classes.detail}>{lostWords(step, cell.trace, t)}</span>}
          </li>
        ))}
      </ol>
      <p className={classes.past}>
        <a href={withQuery(sheetPageUrl(session.sheet, 'history'), { row: cell.row, field: cell.field })}>
          {t('historyOfCell')}
        </a>
      </p>
    </>
  );
}

const STATE_WORDS = {
  matched: 'applies',
  'not-matched': 'doesNotApply',
  off: 'switchedOff',
  problem: 'cannotWork',
  'settled-before': 'wouldApplyButEarlier',
} as const satisfies Record<TraceStep['state'], string>;

function lostWords({ lost }: TraceStep, trace: readonly TraceStep[], t: Texts<'trace'>): string {
  const nameOf = (id: string) => trace.find((step) => step.rule === id)?.name ?? id;
  const winners = [...new Set(lost.map(({ to }) => to))];
  return winners
    .map((winner) => {
      const names = lost.flatMap(({ to, property }) => (to === winner ? itemAt(property.split('.'), 0) : []));
      const properties = [...new Set(names)].map((name) => propertyWord(name, t)).join(', ');
      return t('nameComesFirstIts', { name: nameOf(winner), properties });
    })
    .join('; ');
}
