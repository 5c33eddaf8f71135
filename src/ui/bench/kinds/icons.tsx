import { useTranslations } from 'use-intl';
import { keysOf } from '../../../core/values/typed-keys';
import { ICON_SETS, type IconSet } from '../../../core/looks/icon-sets';
import type { IconsWhen } from '../../../core/rules/kinds/icons';
import { LookIcon } from '../../legend/LookIcon';
import shared from '../Bench.module.css';
import classes from './icons.module.css';
import { Pick } from '../parts/Pick';
import { PickPer } from '../parts/PickPer';
import { PickPosition } from '../parts/PickPosition';
import { PickWord } from '../parts/PickWord';
import { useOutcomeCounts } from '../use-outcome-counts';
import type { BenchKind, ConditionProps } from './bench-kind';

export const iconsBench: BenchKind<IconsWhen> = {
  title: 'icons',
  says: 'threeFiveIconsFrom',
  needs: ['numbers'],
  Condition: IconsCondition,
  Outcomes: IconsOutcomes,
};

function IconsCondition({ when, field, fields, onChange }: ConditionProps<IconsWhen>) {
  const t = useTranslations('bench');
  const sets = keysOf(ICON_SETS).map((set) => ({ id: set, words: <SetWords set={set} /> }));
  return (
    <>
      {t('numberBesideOne')}{' '}
      <Pick
        label={t('icons')}
        value={when.set}
        shown={<SetWords set={when.set} />}
        options={sets}
        onPick={(set) => onChange(withSet(when, set))}
      />{' '}
      <PickWord
        label={t('order')}
        value={when.reverse ? 'falling' : 'rising'}
        words={{ rising: t('fromLowToHigh'), falling: t('fromHighToLow') }}
        onPick={(order) => onChange({ ...when, reverse: order === 'falling' })}
      />{' '}
      {t('among')}{' '}
      <PickPer value={when.per} fields={fields} except={field} onPick={(per) => onChange({ ...when, per })} />
      {t('with2')}{' '}
      <PickWord
        label={t('value2')}
        value={when.showValue === false ? 'hidden' : 'shown'}
        words={{ shown: t('theValueBesideIt'), hidden: t('noValue') }}
        onPick={(value) => onChange({ ...when, showValue: value === 'shown' })}
      />
    </>
  );
}

function SetWords({ set }: { readonly set: IconSet }) {
  return (
    <span className={shared.palette} role="img" aria-label={ICON_SETS[set].join(', ')}>
      {ICON_SETS[set].map((name, index) => (
        <LookIcon key={name} icon={{ set, index }} />
      ))}
    </span>
  );
}

/**
 * The cuts that still fit another set stay; five icons are cut at fifths of the numbers, three at a quarter and three
 * quarters.
 */
function withSet(when: IconsWhen, set: IconSet): IconsWhen {
  const { hide: _, ...rest } = when;
  const wanted = ICON_SETS[set].length - 1;
  if (when.cuts.length === wanted) return { ...rest, set };
  const shares = wanted === 4 ? [20, 40, 60, 80] : [25, 75];
  return { ...rest, set, cuts: shares.map((percentile) => ({ at: { percentile } })) };
}

function IconsOutcomes({ when, field, onChange }: ConditionProps<IconsWhen>) {
  const t = useTranslations('bench');
  const counts = useOutcomeCounts();
  const names = ICON_SETS[when.set];
  const toggle = (icon: number) => {
    const hidden = when.hide ?? [];
    onChange({ ...when, hide: hidden.includes(icon) ? hidden.filter((other) => other !== icon) : [...hidden, icon] });
  };
  return (
    <ol className={shared.bands} aria-label={t('icons')}>
      {names.map((_, step) => {
        const icon = when.reverse ? names.length - 1 - step : step;
        const cut = when.cuts[step - 1];
        const isHidden = when.hide?.includes(icon) === true;
        return (
          <li key={step} className={shared.band}>
            <button
              type="button"
              className={classes.icon}
              aria-pressed={!isHidden}
              aria-label={t('drawNames', { names: names[icon] ?? '' })}
              onClick={() => toggle(icon)}
            >
              <LookIcon icon={{ set: when.set, index: icon }} />
            </button>
            <span>
              {cut ? (
                <>
                  <PickWord
                    label={t('edgeStep', { step })}
                    value={cut.edge ?? '>='}
                    words={{ '>=': t('from2'), '>': t('above') }}
                    onPick={(edge) => onChange({ ...when, cuts: when.cuts.with(step - 1, { ...cut, edge }) })}
                  />{' '}
                  <PickPosition
                    label={t('cutStep', { step })}
                    position={cut.at}
                    field={field}
                    onChange={(at) => onChange({ ...when, cuts: when.cuts.with(step - 1, { ...cut, at }) })}
                  />
                </>
              ) : (
                t('belowThat')
              )}
            </span>
            <span>{t('countCells', { count: counts[icon] ?? 0 })}</span>
          </li>
        );
      })}
    </ol>
  );
}
