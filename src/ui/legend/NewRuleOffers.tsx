import { useEffect, useState, type ReactNode } from 'react';
import type { KindName } from '../../core/rules/kinds/registry';
import type { RuleProfile } from '../../core/rules/profile-rule';
import type { RuleIdea } from '../../core/rules/rule-idea';
import { ruleSentence } from '../../core/rules/sentence-words';
import { STARTERS } from '../../core/rules/starters';
import { suggestRules } from '../../core/rules/suggest-rules';
import { BENCH_KINDS } from '../bench/kinds/registry';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './NewRule.module.css';
import { PhraseInput } from './PhraseInput';

/** What a new rule can be made from: words, what the selected field suggests, common jobs, or a kind of condition. */
export function NewRuleOffers() {
  const session = useSession();
  const fields = useSessionState((state) => state.frame?.fields) ?? [];
  const field = useSessionState((state) => state.frame?.fields[state.selection.anchor.column]);
  const [profile, setProfile] = useState<RuleProfile | null>(null);
  useEffect(() => {
    let isStale = false;
    void session.rules.profileSelected().then((found) => !isStale && setProfile(found ?? null));
    return () => {
      isStale = true;
    };
  }, [session, field?.id]);

  const begin = (idea: RuleIdea) => session.rules.begin(idea);
  if (!field) return null;
  const held = profile
    ? { numbers: profile.profile.numbers - profile.dates, texts: profile.profile.others, dates: profile.dates }
    : { numbers: 0, texts: 0, dates: 0 };
  const isEmpty = held.numbers + held.texts + held.dates === 0;
  const kinds = (Object.keys(BENCH_KINDS) as KindName[]).filter((kind) => kind !== 'change' && (isEmpty || BENCH_KINDS[kind].suits(held)));
  return (
    <div className={classes.offers}>
      <PhraseInput fields={fields} onRead={begin} />
      {profile && suggestRules(field, profile).length > 0 && (
        <Offers title={`${field.label} suggests`}>
          {suggestRules(field, profile).map((idea) => (
            <Offer key={JSON.stringify(idea.when)} title={ruleSentence(fields, idea)} onTake={() => begin(idea)} />
          ))}
        </Offers>
      )}
      <Offers title="Common jobs">
        {STARTERS.filter(({ needs }) => isEmpty || needs === undefined || held[needs] > 0).map((starter) => (
          <Offer
            key={starter.id}
            title={starter.title}
            says={starter.says}
            onTake={() => profile && begin(starter.make({ field, fields, profile }))}
          />
        ))}
      </Offers>
      <Offers title={`Everything that can be asked of ${field.label}`}>
        {kinds.map((kind) => (
          <Offer key={kind} title={BENCH_KINDS[kind].title} says={BENCH_KINDS[kind].says} onTake={() => void session.rules.newRule(kind)} />
        ))}
      </Offers>
    </div>
  );
}

function Offers({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <section aria-label={title}>
      <h3 className={classes.title}>{title}</h3>
      <ul className={classes.list}>{children}</ul>
    </section>
  );
}

interface OfferProps {
  readonly title: string;
  readonly says?: string;
  readonly onTake: () => void;
}

function Offer({ title, says, onTake }: OfferProps) {
  return (
    <li>
      <button type="button" className={classes.offer} onClick={onTake}>
        {title}
        {says && <span>{says}</span>}
      </button>
    </li>
  );
}
