import type { Position } from '../../../core/rules/compile/positions';
import type { ShownField } from '../../../protocol/sheet-view';
import { CellInput } from './CellInput';
import { FormulaInput } from './FormulaInput';
import { ThresholdInput } from './ThresholdInput';

interface Props {
  readonly label: string;
  readonly position: Position;
  readonly field: ShownField | undefined;
  readonly onChange: (position: Position) => void;
}

/** The input for a position: a number, a share, a cell or a formula; none for the least and the greatest. */
export function PositionInput({ label, position, field, onChange }: Props) {
  if (typeof position === 'string') return null;
  if (typeof position === 'object' && 'cell' in position)
    return <CellInput label={label} value={position.cell} takes="cell" onChange={(cell) => onChange({ cell })} />;
  if (typeof position === 'object' && 'formula' in position)
    return <FormulaInput label={label} value={position.formula} onChange={(formula) => onChange({ formula })} />;
  if (typeof position === 'number')
    return (
      <ThresholdInput
        label={label}
        value={position}
        format={field?.format ?? null}
        unit={field?.unit ?? null}
        takes="number"
        onChange={(value) => onChange(Number(value))}
      />
    );
  const share = 'percent' in position ? position.percent : position.percentile;
  const put = (value: number) => {
    const within = Math.min(100, Math.max(0, value));
    onChange('percent' in position ? { percent: within } : { percentile: within });
  };
  return (
    <ThresholdInput
      label={label}
      value={share}
      format={null}
      unit={null}
      takes="number"
      onChange={(value) => put(Number(value))}
    />
  );
}
