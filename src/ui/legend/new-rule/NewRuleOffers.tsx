import { useTranslations } from 'use-intl';
import { keysOf } from '../../../core/values/typed-keys';
import { contentsOf, suits, type Contents } from '../../../core/rules/suggest/field-contents';
import type { RuleIdea } from '../../../core/rules/shape/rule-idea';
import { fieldsWords, ruleSentence, type NamedField } from '../../../core/rules/shape/sentence-words';
import { begun, STARTERS, type Starter } from '../../../core/rules/suggest/starters';
import { suggestEach, type FieldProfile } from '../../../core/rules/suggest/suggest-rules';
import { BENCH_KINDS } from '../../bench/kinds/registry';
import { focusGrid } from '../../grid/focus-grid';
import { selectedArea } from '../../grid/engine/selection';
import { useEngineQuery } from '../../sheet/engine/use-engine-query';
import { useSession, useSessionState } from '../../sheet/use-session';
import classes from './NewRule.module.css';
import { Offer, Offers } from './Offers';
import { PhraseInput } from './PhraseInput';
import { useProfiles } from './use-profiles';

/** The sources of a new rule: words, suggestions for the selected fields, common jobs, or a kind of condition. */
export function NewRuleOffers() {
  const t = useTranslations('legend');
  const tBench = useTranslations('bench');
  const session = useSession();
  const fields = useSessionState((state) => state.frame?.fields) ?? [];
  const left = useSessionState((state) => selectedArea(state.selection).left);
  const right = useSessionState((state) => selectedArea(state.selection).right);
  const begin = (idea: RuleIdea) => session.rules.begin(idea);
  const make = (ideas: readonly RuleIdea[]) => {
    session.rules.make(ideas);
    focusGrid();
  };
  const selected = fields.slice(left, right + 1);
  const { profiles } = useProfiles(selected.map(({ id }) => id));
  const what = selected.length === 1 ? selected[0]?.label : t('selectedFields', { selected: selected.length });
  if (what === undefined || selected.length === 0) return null;
  const each = profiles.map(({ field, profile }) => ({ field, profile, contents: contentsOf(profile) }));
  const suggested = suggestEach(profiles);
  const contents = new Set(each.flatMap((one) => [...one.contents]));
  const kinds = keysOf(BENCH_KINDS).filter((kind) => suits(BENCH_KINDS[kind].needs, contents));
  return (
    <div className={classes.offers} data-help="words">
      <PhraseInput fields={fields} onRead={make} />
      {suggested.length > 0 && (
        <Offers title={t('suggestionsForWhat', { what })}>
          {suggested.map((idea) => (
            <Offer
              key={JSON.stringify([idea.reads, idea.when])}
              title={ruleSentence(fields, idea)}
              onTake={() => begin(idea)}
            />
          ))}
        </Offers>
      )}
      <FromExamples fields={fields} selected={selected} />
      <CommonJobs each={each} fields={fields} onBegin={begin} />
      <Offers title={t('allConditionsForWhat', { what })}>
        {kinds.map((kind) => (
          <Offer
            key={kind}
            title={tBench(BENCH_KINDS[kind].title)}
            says={tBench(BENCH_KINDS[kind].says)}
            onTake={() => void session.rules.newRule(kind)}
          />
        ))}
      </Offers>
    </div>
  );
}

interface FromExamplesProps {
  readonly fields: readonly NamedField[];
  readonly selected: readonly NamedField[];
}

/** Rules from cells: from the selected ones, and from what was filled by hand in the selected fields. */
function FromExamples({ fields, selected }: FromExamplesProps) {
  const t = useTranslations('byExample');
  const { examples } = useSession();
  const filled = useEngineQuery({ kind: 'ask-fills' }) ?? [];
  const there = filled.filter((each) => each.fields.some((id) => selected.some((field) => field.id === id)));
  return (
    <Offers title={t('fromExamples')}>
      <Offer title={t('likeTheSelection')} says={t('pointAtMore')} onTake={() => void examples.begin()} />
      {there.map((each) => (
        <Offer
          key={`${each.fill} ${each.fields.join(' ')}`}
          title={t('explainFills', { count: each.count })}
          says={each.isRecord ? t('inRecords') : t('inFields', { fields: fieldsWords(fields, each.fields, 'and') })}
          onTake={() => void examples.explain(each)}
        />
      ))}
    </Offers>
  );
}

interface CommonJobsProps {
  /** The selected fields, with what is in them. */
  readonly each: readonly (FieldProfile & { readonly contents: ReadonlySet<Contents> })[];
  readonly fields: readonly NamedField[];
  readonly onBegin: (idea: RuleIdea) => void;
}

/** The common jobs that suit a selected field: each is begun over all fields that it suits, fitted to the first. */
function CommonJobs({ each, fields, onBegin }: CommonJobsProps) {
  const t = useTranslations('legend');
  const contents = new Set(each.flatMap((one) => [...one.contents]));
  const take = (starter: Starter) => {
    const suited = each.filter((one) => suits(starter.needs, one.contents));
    const [found] = suited;
    const field = fields.find(({ id }) => id === found?.field);
    if (!found || !field) return;
    onBegin(begun(starter, { field, read: suited.map((one) => one.field), fields, profile: found.profile }));
  };
  return (
    <Offers title={t('commonJobs')}>
      {STARTERS.filter(({ needs }) => suits(needs, contents)).map((starter) => (
        <Offer key={starter.id} title={starter.title} says={starter.says} onTake={() => take(starter)} />
      ))}
    </Offers>
  );
}
