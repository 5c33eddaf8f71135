import { recordOf } from '../../../core/values/typed-keys';
import { MOVES, CHANGE_UNITS, type ChangeWhen } from '../../../core/rules/kinds/change';
import { AmountInput } from '../parts/AmountInput';
import { useSessionState } from '../../sheet/use-session';
import { Pick } from '../parts/Pick';
import { PickWord } from '../parts/PickWord';
import { ThresholdInput } from '../parts/ThresholdInput';
import type { BenchKind, ConditionProps } from './bench-kind';

export const changeBench: BenchKind<ChangeWhen> = {
  title: 'Changed recently',
  says: 'changed, rose or fell within the last hours or days',
  needs: 'anything',
  Condition: ChangeCondition,
};

const SIZES = { any: 'by whatever', least: 'by at least' } as const;

function withSize({ by: _, ...when }: ChangeWhen, by: ChangeWhen['by']): ChangeWhen {
  return by === undefined ? when : { ...when, by };
}

/** The condition over what changed since a named moment, or within a day where none is named. */
function comparedWith({ within: _, since: __, ...when }: ChangeWhen, name: string): ChangeWhen {
  return name === '' ? { ...when, within: { n: 1, unit: 'day' } } : { ...when, since: name };
}

const UNIT_WORDS = recordOf(CHANGE_UNITS, String);

function ChangeCondition({ when, onChange }: ConditionProps<ChangeWhen>) {
  const { within } = when;
  const snapshots = useSessionState((state) => state.frame?.snapshots) ?? [];
  return (
    <>
      <PickWord label="Move" value={when.is} words={MOVES} onPick={(is) => onChange({ ...when, is })} />{' '}
      <PickWord
        label="How much"
        value={when.by === undefined ? 'any' : 'least'}
        words={SIZES}
        onPick={(size) => onChange(withSize(when, size === 'any' ? undefined : '10%'))}
      />{' '}
      {when.by !== undefined && (
        <AmountInput label="Least change" value={when.by} onChange={(by) => onChange(withSize(when, by))} />
      )}{' '}
      <Pick
        label="Compared with"
        value={when.since ?? ''}
        shown={within ? 'within' : `since ${when.since}`}
        options={[
          { id: '', words: 'within some time' },
          ...snapshots.map((name) => ({ id: name, words: `since ${name}` })),
        ]}
        onPick={(name) => onChange(comparedWith(when, name))}
      />{' '}
      {within && (
        <>
          <ThresholdInput
            label="How many"
            value={within.n}
            format={null}
            unit={null}
            takes="number"
            onChange={(n) =>
              Number.isInteger(n) && Number(n) > 0 && onChange({ ...when, within: { ...within, n: Number(n) } })
            }
          />{' '}
          <PickWord
            label="Unit"
            value={within.unit}
            words={UNIT_WORDS}
            onPick={(unit) => onChange({ ...when, within: { ...within, unit } })}
          />
        </>
      )}
    </>
  );
}
