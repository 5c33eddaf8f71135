import { keysOf } from '../../../core/values/typed-keys';
import type { BorderSide, Look } from '../../../core/looks/look';
import classes from '../Bench.module.css';
import { PickColor } from '../parts/PickColor';
import { PickWord } from '../parts/PickWord';

const LINES = { none: 'none', solid: 'plain', dashed: 'dashed', dotted: 'dotted', double: 'double' } as const;
const WHERE = {
  around: 'all around',
  top: 'above',
  right: 'on the right',
  bottom: 'below',
  left: 'on the left',
} as const;

interface Props {
  readonly border: Look['border'];
  /** As the look shows it, side by side. */
  readonly shown: readonly (BorderSide | undefined)[];
  readonly onChange: (border: NonNullable<Look['border']>) => void;
}

/** The line of a look: its style, side, thickness and colour. */
export function BorderEditor({ border, shown, onChange }: Props) {
  const side = keysOf(WHERE).find((each) => border?.[each]) ?? 'around';
  const line = border?.[side] ?? shown.find((each) => each !== undefined);
  const put = (where: keyof typeof WHERE, next: BorderSide) => onChange({ [where]: next });
  const base: BorderSide = line ?? { style: 'solid', width: 1, color: '#5a5f69' };
  return (
    <div className={classes.lookLine}>
      <span>Line</span>
      <PickWord
        label="Line"
        value={line?.style ?? 'none'}
        words={LINES}
        onPick={(style) => (style === 'none' ? onChange({}) : put(side, { ...base, style }))}
      />
      {line && (
        <>
          <PickWord label="Where" value={side} words={WHERE} onPick={(where) => put(where, base)} />
          <PickWord
            label="Thickness"
            value={String(base.width) as '1' | '2' | '3' | '4'}
            words={{ 1: '1 px', 2: '2 px', 3: '3 px', 4: '4 px' }}
            onPick={(width) => put(side, { ...base, width: Number(width) })}
          />
          <PickColor label="Line colour" value={base.color} onPick={(color) => put(side, { ...base, color })} />
        </>
      )}
    </div>
  );
}
