import { memo } from 'react';
import type { When } from '../../core/rules/kinds/registry';
import { kindOf } from '../../core/rules/kinds/registry';
import type { Paints, Reads, Rule } from '../../core/rules/rule';
import { ReadsPart } from './ReadsPart';
import { useSession, useSessionState } from '../sheet/use-session';
import { useNewest } from '../use-newest';
import classes from './Bench.module.css';
import { benchOf } from './kinds/registry';
import { Pick } from './parts/Pick';
import { PickFields } from './parts/PickFields';
import { PickLook } from './look/PickLook';

/** A rule as one sentence whose underlined words can be changed. */
export function Sentence({ rule, showsOutcomes }: { readonly rule: Rule; readonly showsOutcomes: boolean }) {
  const session = useSession();
  const fields = useSessionState((state) => state.frame?.fields) ?? [];
  const { reads, paints, when } = rule;
  const { Condition, Outcomes } = benchOf(when);
  const field = 'fields' in reads ? fields.find((candidate) => candidate.id === reads.fields[0]) : undefined;
  const change = (part: Partial<Rule>) => session.rules.changeDraft({ ...rule, ...part });
  const pickReads = useNewest((next: Reads) => change({ reads: next }));
  const pickPaints = useNewest((next: Paints) => change({ paints: next }));
  const condition = { when, field, fields, onChange: (next: When) => change({ when: next }) };
  return (
    <div>
      <div className={classes.sentence}>
        Where <ReadsPart reads={reads} onPick={pickReads} /> <Condition {...condition} />, paint <PaintsPart paints={paints} onPick={pickPaints} />{' '}
        {kindOf(when).outcomes === 'match' ? (
          <>
            as <PickLook label="Look" value={rule.look ?? null} onPick={(look) => look && change({ look })} />
          </>
        ) : (
          'in its own way'
        )}
        , and{' '}
        <Pick
          label="Later rules"
          value={rule.settles ? 'settle' : 'add'}
          shown={rule.settles ? 'settle it: later rules leave it alone' : 'let later rules add to it'}
          options={[
            { id: 'add', words: 'let later rules add to it' },
            { id: 'settle', words: 'settle it: later rules leave it alone' },
          ]}
          onPick={(id) => change({ settles: id === 'settle' })}
        />
        .
      </div>
      {showsOutcomes && Outcomes && <Outcomes {...condition} />}
    </div>
  );
}

const PaintsPart = memo(function PaintsPart({ paints, onPick }: { readonly paints: Paints; readonly onPick: (paints: Paints) => void }) {
  const fields = useSessionState((state) => state.frame?.fields) ?? [];
  const kind = typeof paints === 'object' ? 'fields' : paints;
  const words = { cell: 'that cell', record: 'the whole record', fields: 'these fields of the record:' } as const;
  return (
    <>
      <Pick
        label="Paints"
        value={kind}
        shown={words[kind]}
        options={[
          { id: 'cell', words: 'that cell' },
          { id: 'record', words: 'the whole record' },
          { id: 'fields', words: 'some fields of the record' },
        ]}
        onPick={(id) => onPick(id === 'fields' ? { fields: [fields[0]!.id] } : (id as 'cell' | 'record'))}
      />
      {typeof paints === 'object' && (
        <>
          {' '}
          <PickFields label="Painted fields" value={paints.fields} onPick={(ids) => onPick({ fields: ids })} />
        </>
      )}
    </>
  );
});
