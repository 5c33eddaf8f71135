import { useEffect, useState } from 'react';
import { keysOf } from '../../../core/values/typed-keys';
import { contentsOf, suits } from '../../../core/rules/suggest/field-contents';
import type { RuleIdea } from '../../../core/rules/shape/rule-idea';
import { ruleSentence } from '../../../core/rules/shape/sentence-words';
import { STARTERS } from '../../../core/rules/suggest/starters';
import { suggestEach, type FieldProfile } from '../../../core/rules/suggest/suggest-rules';
import { BENCH_KINDS } from '../../bench/kinds/registry';
import { selectedArea } from '../../grid/engine/selection';
import { useSession, useSessionState } from '../../sheet/use-session';
import classes from './NewRule.module.css';
import { Offer, Offers } from './Offers';
import { PhraseInput } from './PhraseInput';

/** A profile of each selected field; none until they are known. */
function useProfiles(left: number, right: number): readonly FieldProfile[] {
  const session = useSession();
  const [profiles, setProfiles] = useState<readonly FieldProfile[]>([]);
  useEffect(() => {
    let isStale = false;
    void session.rules.profileEach().then((found) => !isStale && setProfiles(found));
    return () => {
      isStale = true;
    };
  }, [session, left, right]);
  return profiles;
}

/** The sources of a new rule: words, suggestions for the selected fields, common jobs, or a kind of condition. */
export function NewRuleOffers() {
  const session = useSession();
  const fields = useSessionState((state) => state.frame?.fields) ?? [];
  const left = useSessionState((state) => selectedArea(state.selection).left);
  const right = useSessionState((state) => selectedArea(state.selection).right);
  const profiles = useProfiles(left, right);

  const begin = (idea: RuleIdea) => session.rules.begin(idea);
  const selected = fields.slice(left, right + 1);
  const what = selected.length === 1 ? selected[0]?.label : `${selected.length} fields`;
  if (what === undefined || selected.length === 0) return null;
  const each = profiles.map(({ field, profile }) => ({ field, profile, contents: contentsOf(profile) }));
  const suggested = suggestEach(profiles);
  const contents = new Set(each.flatMap((one) => [...one.contents]));
  const kinds = keysOf(BENCH_KINDS).filter((kind) => suits(BENCH_KINDS[kind].needs, contents));
  return (
    <div className={classes.offers}>
      <PhraseInput fields={fields} onRead={begin} />
      {suggested.length > 0 && (
        <Offers title={`${what} ${selected.length === 1 ? 'suggests' : 'suggest'}`}>
          {suggested.map((idea) => (
            <Offer
              key={JSON.stringify([idea.reads, idea.when])}
              title={ruleSentence(fields, idea)}
              onTake={() => begin(idea)}
            />
          ))}
        </Offers>
      )}
      <Offers title="Common jobs">
        {STARTERS.filter(({ needs }) => suits(needs, contents)).map((starter) => (
          <Offer
            key={starter.id}
            title={starter.title}
            says={starter.says}
            onTake={() => {
              // The first of the selected fields that it suits.
              const found = each.find((one) => suits(starter.needs, one.contents));
              const field = fields.find(({ id }) => id === found?.field);
              if (found && field) begin(starter.make({ field, fields, profile: found.profile }));
            }}
          />
        ))}
      </Offers>
      <Offers title={`Everything that can be asked of ${what}`}>
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
