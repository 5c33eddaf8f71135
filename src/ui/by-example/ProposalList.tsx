import { useTranslations } from 'use-intl';
import type { CellTold, ProposalTold } from '../../protocol/by-example';
import type { ByExample } from '../sheet/session-state';
import { useSession } from '../sheet/use-session';
import classes from './ByExample.module.css';

/** The rules that fit, best first: the one that is chosen shows on the sheet. */
export function ProposalList({ byExample }: { readonly byExample: ByExample }) {
  const t = useTranslations('byExample');
  const session = useSession();
  const { told, chosen, filled, examples } = byExample;
  const isBegun = filled !== null || examples.wanted.some(({ cells }) => cells.length > 0);
  const none = !told
    ? t('looking')
    : told.proposals.length > 0
      ? null
      : filled
        ? t('noRuleExplains')
        : isBegun
          ? t('noRuleFits')
          : t('addSomeCells');
  return (
    <div className={classes.proposals} role="radiogroup" aria-label={t('rulesThatFit')}>
      <h3 className={classes.groupTitle}>{t('rulesThatFit')}</h3>
      <p className={classes.none} role="status">
        {none}
      </p>
      {told?.proposals.map((proposal, at) => (
        <label key={JSON.stringify(proposal.idea)} className={classes.proposal} data-chosen={at === chosen}>
          <input
            type="radio"
            name="proposal"
            checked={at === chosen}
            onChange={() => session.examples.choose(at)}
            data-testid="proposal"
          />
          <span>
            <span className={classes.sentence}>{proposal.sentence}</span>
            <Facts proposal={proposal} paints={examples.paints} />
          </span>
        </label>
      ))}
    </div>
  );
}

interface FactsProps {
  readonly proposal: ProposalTold;
  readonly paints: 'cell' | 'record';
}

/** How many cells a proposal paints, which are nearest to its limit, and which examples it does not fit. */
function Facts({ proposal: { count, near, misses, isSame }, paints }: FactsProps) {
  const t = useTranslations('byExample');
  const named = (cells: readonly CellTold[]) =>
    cells.map(({ address, shown }) => t('cellShown', { address, shown: shown || t('blank') })).join(', ');
  if (isSame) return <span className={classes.facts}>{t('sameCellsNow')}</span>;
  const [inside, outside] = [near.filter(({ isPainted }) => isPainted), near.filter(({ isPainted }) => !isPainted)];
  const facts = [
    paints === 'record' ? t('paintsRecords', { count }) : t('paintsCells', { count }),
    misses.length > 0 && t('allBut', { cells: misses.map(({ address }) => address).join(', ') }),
    inside.length > 0 && t('nearestIn', { cells: named(inside) }),
    outside.length > 0 && t('nearestOut', { cells: named(outside) }),
  ];
  return <span className={classes.facts}>{facts.filter(Boolean).join(' · ')}</span>;
}
