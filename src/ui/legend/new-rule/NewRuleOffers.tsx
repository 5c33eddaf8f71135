import { useEffect, useState } from 'react';
import { keysOf } from '../../../core/values/typed-keys';
import { contentsOf, suits, type Contents } from '../../../core/rules/suggest/field-contents';
import type { RuleProfile } from '../../../core/rules/explain/profile-rule';
import type { RuleIdea } from '../../../core/rules/shape/rule-idea';
import { ruleSentence } from '../../../core/rules/shape/sentence-words';
import { STARTERS } from '../../../core/rules/suggest/starters';
import { suggestRules } from '../../../core/rules/suggest/suggest-rules';
import { BENCH_KINDS } from '../../bench/kinds/registry';
import { useSession, useSessionState } from '../../sheet/use-session';
import classes from './NewRule.module.css';
import { Offer, Offers } from './Offers';
import { PhraseInput } from './PhraseInput';

/** The sources of a new rule: words, suggestions for the selected field, common jobs, or a kind of condition. */
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
  const contents = profile ? contentsOf(profile) : new Set<Contents>();
  const suggested = profile ? suggestRules(field, profile) : [];
  const kinds = keysOf(BENCH_KINDS).filter((kind) => suits(BENCH_KINDS[kind].needs, contents));
  return (
    <div className={classes.offers}>
      <PhraseInput fields={fields} onRead={begin} />
      {suggested.length > 0 && (
        <Offers title={`${field.label} suggests`}>
          {suggested.map((idea) => (
            <Offer key={JSON.stringify(idea.when)} title={ruleSentence(fields, idea)} onTake={() => begin(idea)} />
          ))}
        </Offers>
      )}
      <Offers title="Common jobs">
        {STARTERS.filter(({ needs }) => suits(needs, contents)).map((starter) => (
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
          <Offer
            key={kind}
            title={BENCH_KINDS[kind].title}
            says={BENCH_KINDS[kind].says}
            onTake={() => void session.rules.newRule(kind)}
          />
        ))}
      </Offers>
    </div>
  );
}
