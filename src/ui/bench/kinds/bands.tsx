import { ActionIcon } from '@mantine/core';
import { IconPlus, IconX } from '@tabler/icons-react';
import { kindOf } from '../../../core/rules/kinds/registry';
import type { BandsWhen } from '../../../core/rules/kinds/bands';
import { sentenceWords } from '../../../core/rules/sentence-words';
import { counted } from '../../counted';
import { useSessionState } from '../../sheet/use-session';
import classes from '../Bench.module.css';
import { Pick } from '../Pick';
import { PickLook } from '../PickLook';
import { ThresholdInput } from '../ThresholdInput';
import type { BenchKind, ConditionProps } from './bench-kind';

export const bandsBench: BenchKind<BandsWhen> = {
  title: 'Sort into bands',
  says: 'low, middle and high by cut points: no gaps, no overlaps',
  Condition: BandsCondition,
  Outcomes: BandsOutcomes,
};

function BandsCondition({ when, onChange }: ConditionProps<BandsWhen>) {
  return (
    <>
      falls into one of {when.looks.length} bands, where a value at a cut belongs to{' '}
      <Pick
        label="A value at a cut belongs to"
        value={when.edge ?? 'lower'}
        shown={when.edge === 'upper' ? 'the band below it' : 'the band above it'}
        options={[
          { id: 'lower', words: 'the band above it' },
          { id: 'upper', words: 'the band below it' },
        ]}
        onPick={(id) => onChange({ ...when, edge: id as 'lower' | 'upper' })}
      />
    </>
  );
}

/** Each band with its look, and the cuts between them. */
function BandsOutcomes({ when, field, onChange }: ConditionProps<BandsWhen>) {
  const reads = useSessionState((state) => state.bench?.draft.rule.reads) ?? { fields: [] };
  const frame = useSessionState((state) => state.frame);
  const counts = useSessionState((state) => state.legend.find((entry) => entry.isDraft || entry.id === state.bench?.draft.id)?.outcomes);
  const words = sentenceWords(frame?.fields ?? [], reads);
  const kind = kindOf(when);
  return (
    <ol className={classes.bands} aria-label="Bands">
      {when.looks.map((look, band) => {
        const cut = when.cuts[band - 1];
        return (
          <li key={band} className={classes.band}>
            <span className={classes.bandRange}>
              {band === 0 ? (
                kind.outcomeName({ ...when, names: [] } as BandsWhen, 0, words)
              ) : typeof cut === 'number' ? (
                <>
                  from{' '}
                  <ThresholdInput
                    label={`Cut ${band}`}
                    value={cut}
                    format={field?.format ?? null}
                    unit={field?.unit ?? null}
                    takes="number"
                    onChange={(value) => onChange({ ...when, cuts: when.cuts.with(band - 1, Number(value)) })}
                  />
                </>
              ) : (
                `from ${words.operand(cut!)}`
              )}
            </span>
            <PickLook
              label={`Look of band ${band + 1}`}
              value={look}
              allowNone
              onPick={(next) => onChange({ ...when, looks: when.looks.with(band, next) })}
            />
            <span>{counted(counts?.[band] ?? 0, 'cell')}</span>
            {when.names?.[band] && <span>“{when.names[band]}”</span>}
            {band > 0 && when.cuts.length > 1 && (
              <ActionIcon
                variant="subtle"
                color="ink"
                size="sm"
                aria-label={`Remove cut ${band}`}
                onClick={() => onChange(withoutCut(when, band - 1))}
              >
                <IconX size={13} stroke={1.5} />
              </ActionIcon>
            )}
          </li>
        );
      })}
      <li className={classes.band}>
        <ActionIcon variant="default" size="sm" aria-label="Add a cut" onClick={() => onChange(withCut(when))}>
          <IconPlus size={13} stroke={1.5} />
        </ActionIcon>
      </li>
    </ol>
  );
}

function withoutCut(when: BandsWhen, at: number): BandsWhen {
  const { names, ...rest } = when;
  return {
    ...rest,
    cuts: when.cuts.toSpliced(at, 1),
    looks: when.looks.toSpliced(at + 1, 1),
    ...(names ? { names: names.toSpliced(at + 1, 1) } : {}),
  };
}

/** Adds a cut above the last one, as far from it as that is from the one before. */
function withCut(when: BandsWhen): BandsWhen {
  const [before, last] = [when.cuts.at(-2), when.cuts.at(-1)];
  const step = typeof before === 'number' && typeof last === 'number' ? last - before : 1;
  const cut = typeof last === 'number' ? Number((last + step).toPrecision(12)) : 1;
  return { ...when, cuts: [...when.cuts, cut], looks: [...when.looks, null], ...(when.names ? { names: [...when.names, ''] } : {}) };
}
