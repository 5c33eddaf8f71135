import { ActionIcon } from '@mantine/core';
import { IconPlus, IconX } from '@tabler/icons-react';
import { useTranslations } from 'use-intl';
import { eachText } from '../../../texts/texts';
import { kindOf } from '../../../core/rules/kinds/registry';
import { edgeOf, type BandsWhen } from '../../../core/rules/kinds/bands';
import { sentenceWords } from '../../../core/rules/shape/sentence-words';
import { useSessionState } from '../../sheet/use-session';
import classes from '../Bench.module.css';
import { PickWord } from '../parts/PickWord';
import { PickLook } from '../look/PickLook';
import { PickHow } from '../parts/PickHow';
import { NameInput } from '../parts/NameInput';
import { PickOperand } from '../parts/PickOperand';
import type { BenchKind, ConditionProps } from './bench-kind';

export const bandsBench: BenchKind<BandsWhen> = {
  title: 'sortIntoBands',
  says: 'lowMiddleHighBy',
  needs: ['numbers'],
  Condition: BandsCondition,
  Outcomes: BandsOutcomes,
};

const EDGES = { lower: 'from2', upper: 'above' } as const;

function BandsCondition({ when, onChange }: ConditionProps<BandsWhen>) {
  const t = useTranslations('bench');
  return (
    <>
      {t('fallsIntoOneLength', { length: when.looks.length })}{' '}
      <PickHow
        value={when}
        onPick={(how) => {
          const { asShown: _, magnitude: __, ...rest } = when;
          onChange({ ...rest, ...how });
        }}
      />
    </>
  );
}

/** Each band with its look, and the cuts between them. */
function BandsOutcomes({ when, field, fields, onChange }: ConditionProps<BandsWhen>) {
  const t = useTranslations('bench');
  const counts = useSessionState(
    (state) => state.legend.find((entry) => entry.isDraft || entry.id === state.bench?.draft.id)?.outcomes,
  );
  return (
    <ol className={classes.bands} aria-label={t('bands')}>
      {when.looks.map((_, band) => (
        <Band key={band} band={band} count={counts?.[band] ?? 0} {...{ when, field, fields, onChange }} />
      ))}
      <li className={classes.band}>
        <ActionIcon variant="default" size="sm" aria-label={t('addACut')} onClick={() => onChange(withCut(when))}>
          <IconPlus size={13} stroke={1.5} />
        </ActionIcon>
      </li>
    </ol>
  );
}

interface BandProps extends ConditionProps<BandsWhen> {
  readonly band: number;
  /** How many cells it has. */
  readonly count: number;
}

/** A band: where it begins, its look and its name. */
function Band({ band, count, when, field, fields, onChange }: BandProps) {
  const t = useTranslations('bench');
  const reads = useSessionState((state) => state.bench?.draft.rule.reads) ?? { fields: [] };
  const frame = useSessionState((state) => state.frame);
  const words = sentenceWords(frame?.fields ?? [], reads);
  const cut = when.cuts[band - 1];
  return (
    <li className={classes.band}>
      <span className={classes.bandRange}>
        {cut === undefined ? (
          kindOf(when).outcomeName({ ...when, names: [] }, 0, words)
        ) : (
          <>
            <PickWord
              label={t('edgeOfCutBand', { band })}
              value={edgeOf(when, band - 1)}
              words={eachText(EDGES, (key) => t(key))}
              onPick={(edge) => onChange({ ...when, edge: edgesOf(when).with(band - 1, edge) })}
            />{' '}
            <PickOperand
              label={t('cutBand', { band })}
              operand={cut}
              field={field}
              fields={fields}
              takes="number"
              outright={0}
              onChange={(value) => onChange({ ...when, cuts: when.cuts.with(band - 1, value) })}
            />
          </>
        )}
      </span>
      <PickLook
        label={t('lookOfBandBand', { band: band + 1 })}
        value={when.looks[band] ?? null}
        allowNone
        onPick={(next) => onChange({ ...when, looks: when.looks.with(band, next) })}
      />
      <span>{t('countCells', { count })}</span>
      <NameInput
        label={t('nameOfBandBand', { band: band + 1 })}
        value={when.names?.[band] ?? ''}
        onChange={(name) =>
          onChange({ ...when, names: when.looks.map((_, at) => (at === band ? name : (when.names?.[at] ?? ''))) })
        }
      />
      {band > 0 && when.cuts.length > 1 && (
        <ActionIcon
          variant="subtle"
          color="ink"
          size="sm"
          aria-label={t('removeCutBand', { band })}
          onClick={() => onChange(withoutCut(when, band - 1))}
        >
          <IconX size={13} stroke={1.5} />
        </ActionIcon>
      )}
    </li>
  );
}

const edgesOf = (when: BandsWhen) => when.cuts.map((_, cut) => edgeOf(when, cut));

function withoutCut(when: BandsWhen, at: number): BandsWhen {
  const { names, ...rest } = when;
  return {
    ...rest,
    edge: edgesOf(when).toSpliced(at, 1),
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
  return {
    ...when,
    edge: [...edgesOf(when), edgeOf(when, when.cuts.length - 1)],
    cuts: [...when.cuts, cut],
    looks: [...when.looks, { look: 'plum' }],
    ...(when.names ? { names: [...when.names, ''] } : {}),
  };
}
