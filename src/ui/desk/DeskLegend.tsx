import { useTranslations } from 'use-intl';
import { inDigits } from '../../core/values/counted';
import { savedLooks } from '../../core/sheet/sheet-looks';
import { MOST_UNSEEN, type DeskSheetSummary } from '../../protocol/sheet-summary';
import type { Theme } from '../../core/looks/first-family';
import { LookSwatch } from '../legend/LookSwatch';
import { TOKENS } from '../theme/tokens';
import classes from './Desk.module.css';

/** The legend of a sheet on one line: each rule by its looks and name, with how much it paints where that is known. */
export function DeskLegend({ sheet, scheme }: { readonly sheet: DeskSheetSummary; readonly scheme: Theme }) {
  const t = useTranslations('desk');
  const { legend, looks, rules, unseen } = sheet;
  if (legend.length === 0) return null;
  const saved = savedLooks(looks, scheme);
  const more = (rules ?? 0) - legend.length;
  return (
    <span className={classes.strip}>
      {legend.map(({ name, on, looks: own, painted }, at) => (
        <span key={at} className={classes.chip} data-off={!on}>
          <span className={classes.swatches} aria-hidden>
            {own.map((look, place) => (
              <LookSwatch key={place} look={look} saved={saved} tokens={TOKENS[scheme]} text="9" isSmall />
            ))}
          </span>
          <span className={classes.ruleName}>{name}</span>
          {painted !== null && on && <b>{inDigits(painted)}</b>}
        </span>
      ))}
      {more > 0 && <span className={classes.chip}>{t('andMoreMore', { more })}</span>}
      {unseen > 0 && (
        <span className={classes.fresh}>{t('isManyUnseenNew', { isMany: String(unseen >= MOST_UNSEEN), unseen })}</span>
      )}
    </span>
  );
}
