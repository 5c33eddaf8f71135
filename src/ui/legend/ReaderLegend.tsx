import { useTranslations } from 'use-intl';
import { inDigits } from '../../core/values/counted';
import { itemAt } from '../../core/values/item-at';
import { ruleGroups } from '../../core/rules/shape/rule-groups';
import type { RuleMeaning } from '../../core/rules/shape/rule-meaning';
import type { RuleId } from '../../core/sheet/ids';
import classes from './ReaderLegend.module.css';
import { Swatch } from './Swatch';

interface Props {
  readonly meanings: readonly RuleMeaning[];
  /** The rule whose cells are lit, and how another is chosen, where that can be done. */
  readonly lit?: { readonly rule: RuleId | null; readonly onLight: (rule: RuleId | null) => void };
}

/** The legend for readers: the name and meaning of each look. */
export function ReaderLegend({ meanings, lit }: Props) {
  const t = useTranslations('legend');
  if (meanings.length === 0) return <p className={classes.note}>{t('noRuleWorkSheet')}</p>;
  return (
    <div className={classes.legend}>
      {ruleGroups(meanings, ({ group }) => group).map(({ name, entries: members }) => (
        <section
          key={itemAt(members, 0).id}
          aria-label={name ?? undefined}
          className={name === null ? undefined : classes.members}
        >
          {name !== null && <h3 className={classes.group}>{name}</h3>}
          <ul className={classes.list}>
            {members.map((meaning) => (
              <Meaning key={meaning.id} meaning={meaning} lit={lit} />
            ))}
          </ul>
        </section>
      ))}
    </div>
  );
}

/** One rule: its looks, each with its meaning. */
function Meaning({ meaning, lit }: { readonly meaning: RuleMeaning; readonly lit: Props['lit'] }) {
  const t = useTranslations('legend');
  const { id, name, note, sentence, matched, outcomes } = meaning;
  const isNamed = outcomes.some(({ says }) => says !== '');
  const isLit = lit?.rule === id;
  const title = (
    <>
      {!isNamed && (
        <span className={classes.swatches} aria-hidden>
          {outcomes.slice(0, 5).map(({ look }, at) => (
            <Swatch key={at} look={look} text={outcomes.length > 1 ? '9' : '9.1'} isSmall={outcomes.length > 1} />
          ))}
        </span>
      )}
      <strong>{name}</strong>
    </>
  );
  return (
    <li className={classes.meaning} data-lit={isLit || undefined}>
      {lit ? (
        <button
          type="button"
          className={classes.title}
          aria-pressed={isLit}
          onClick={() => lit.onLight(isLit ? null : id)}
        >
          {title}
        </button>
      ) : (
        <div className={classes.title}>{title}</div>
      )}
      {isNamed && (
        <ul className={classes.outcomes}>
          {outcomes.map(({ look, says, count }, at) => (
            <li key={at}>
              <Swatch look={look} text="9.1" isSmall /> {says} ({inDigits(count)})
            </li>
          ))}
        </ul>
      )}
      {note && <p className={classes.note}>{note}</p>}
      {sentence !== null && sentence !== name && <p className={classes.sentence}>{sentence}</p>}
      {!isNamed && <p className={classes.sentence}>{t('matchedCells', { matched })}</p>}
    </li>
  );
}
