import { kindOf } from '../../core/rules/kinds/registry';
import { sentenceWords } from '../../core/rules/sentence-words';
import { ruleGroups } from '../../core/rules/rule-groups';
import type { LegendEntry, ShownField } from '../../protocol/engine-messages';
import { useSessionState } from '../sheet/use-session';
import classes from './ReaderLegend.module.css';
import { Swatch } from './Swatch';

const NO_FIELDS: readonly ShownField[] = [];

/** The legend for those who only read: what each look is called and what it means. Rules that are off or cannot work are left out. */
export function ReaderLegend({ entries }: { readonly entries: readonly LegendEntry[] }) {
  const fields = useSessionState((state) => state.frame?.fields) ?? NO_FIELDS;
  const shown = entries.filter(({ rule, problem }) => rule.on && !problem);
  if (shown.length === 0) return <p className={classes.note}>No rule is at work on this sheet.</p>;
  return (
    <div className={classes.legend}>
      {ruleGroups(shown).map(({ name, entries: members }) => (
        <section key={members[0]!.id} aria-label={name ?? undefined} className={name === null ? undefined : classes.members}>
          {name !== null && <h3 className={classes.group}>{name}</h3>}
          <ul className={classes.list}>
            {members.map((entry) => (
              <Meaning key={entry.id} entry={entry} fields={fields} />
            ))}
          </ul>
        </section>
      ))}
    </div>
  );
}

/** One rule: its looks, each with its meaning. */
function Meaning({ entry, fields }: { readonly entry: LegendEntry; readonly fields: readonly ShownField[] }) {
  const { rule, sentence, matched } = entry;
  const kind = kindOf(rule.when);
  const words = sentenceWords(fields, rule.reads);
  const looks = kind.outcomeLooks(rule.when) ?? [rule.look ?? null];
  const outcomes = looks.flatMap((look, outcome) => (look ? [{ look, outcome, says: kind.outcomeName(rule.when, outcome, words) }] : []));
  const isNamed = outcomes.some(({ says }) => says !== '');
  return (
    <li className={classes.meaning}>
      <div className={classes.title}>
        {!isNamed && (
          <span className={classes.swatches} aria-hidden>
            {outcomes.slice(0, 5).map(({ look, outcome }) => (
              <Swatch key={outcome} look={look} text={outcomes.length > 1 ? '9' : '9.1'} isSmall={outcomes.length > 1} />
            ))}
          </span>
        )}
        <strong>{rule.name}</strong>
      </div>
      {isNamed && (
        <ul className={classes.outcomes}>
          {outcomes.map(({ look, outcome, says }) => (
            <li key={outcome}>
              <Swatch look={look} text="9.1" isSmall /> {says} ({(entry.outcomes[outcome] ?? 0).toLocaleString('en')})
            </li>
          ))}
        </ul>
      )}
      {rule.note && <p className={classes.note}>{rule.note}</p>}
      {sentence !== rule.name && <p className={classes.sentence}>{sentence}</p>}
      {!isNamed && <p className={classes.sentence}>{matched.toLocaleString('en')} cells</p>}
    </li>
  );
}
