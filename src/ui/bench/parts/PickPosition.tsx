import { useTranslations } from 'use-intl';
import { keysOf } from '../../../core/values/typed-keys';
import type { Position } from '../../../core/rules/compile/positions';
import { cellAddress } from '../../../core/sheet/address';
import type { ShownField } from '../../../protocol/sheet-view';
import { useSession, useSessionState } from '../../sheet/use-session';
import { Pick } from './Pick';
import { PositionInput } from './PositionInput';

const WORDS = {
  number: 'theValue',
  least: 'least',
  greatest: 'greatest',
  percentile: 'percentile',
  percent: 'percentWay',
  cell: 'whatCell',
  formula: 'whatGives',
} as const;
type Kind = keyof typeof WORDS;

interface Props {
  readonly label: string;
  readonly position: Position;
  readonly field: ShownField | undefined;
  readonly onChange: (position: Position) => void;
  /** Offers to leave the end to the values. */
  readonly auto?: { readonly isChosen: boolean; readonly onPick: () => void };
}

/** Where on the scale of the numbers something stands. */
export function PickPosition({ label, position, field, onChange, auto }: Props) {
  const t = useTranslations('bench');
  const session = useSession();
  const median = useSessionState((state) => state.profile?.profile.median);
  const kind = kindOf(position);
  const pick = (id: Kind | 'auto') => {
    const { column, position: row } = session.get().selection.anchor;
    const made: Record<Kind, () => Position> = {
      number: () => (median === undefined || Number.isNaN(median) ? 0 : median),
      least: () => 'least',
      greatest: () => 'greatest',
      percentile: () => ({ percentile: 50 }),
      percent: () => ({ percent: 50 }),
      cell: () => ({ cell: cellAddress(column, row) }),
      formula: () => ({ formula: '=0' }),
    };
    if (id === 'auto') auto?.onPick();
    else onChange(made[id]());
  };
  const options = [
    ...(auto ? [{ id: 'auto' as const, words: t('zeroValuesOwnEnd') }] : []),
    ...keysOf(WORDS).map((id) => ({
      id,
      words: id === 'cell' ? t('whatACellHolds') : id === 'formula' ? t('whatAFormulaGives') : t(WORDS[id]),
    })),
  ];
  const isAuto = auto?.isChosen === true;
  return (
    <>
      <Pick
        label={t('labelIs', { label })}
        value={isAuto ? 'auto' : kind}
        shown={isAuto ? t('zeroValuesOwnEnd') : t(WORDS[kind])}
        options={options}
        onPick={pick}
      />{' '}
      {!isAuto && <PositionInput label={label} position={position} field={field} onChange={onChange} />}
    </>
  );
}

function kindOf(position: Position): Kind {
  if (typeof position === 'number') return 'number';
  if (typeof position === 'string') return position;
  return (['percentile', 'percent', 'cell'] as const).find((kind) => kind in position) ?? 'formula';
}
