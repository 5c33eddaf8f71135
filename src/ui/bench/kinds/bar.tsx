import { BAR_COLORS, type BarWhen } from '../../../core/rules/kinds/bar';
import { PickColor } from '../parts/PickColor';
import { PickPer } from '../parts/PickPer';
import { PickPosition } from '../parts/PickPosition';
import { PickWord } from '../parts/PickWord';
import type { BenchKind, ConditionProps } from './bench-kind';

export const barBench: BenchKind<BarWhen> = {
  title: 'Data bars',
  says: 'a bar as long as the value',
  needs: ['numbers'],
  Condition: BarCondition,
};

function BarCondition({ when, field, fields, onChange }: ConditionProps<BarWhen>) {
  const { from = 'auto', to = 'auto' } = when;
  const put = (part: Partial<BarWhen>) => onChange({ ...when, ...part });
  return (
    <>
      is a number, drawn as a{' '}
      <PickWord
        label="Style"
        value={when.style ?? 'solid'}
        words={{ solid: 'plain bar', gradient: 'fading bar' }}
        onPick={(style) => put({ style })}
      />{' '}
      <PickColor label="Colour" value={when.color ?? BAR_COLORS.above} onPick={(color) => put({ color })} /> (
      <PickColor
        label="Colour below zero"
        value={when.below ?? BAR_COLORS.below}
        onPick={(below) => put({ below })}
      />{' '}
      below zero) from{' '}
      <PickPosition
        label="Beginning"
        position={from === 'auto' ? 0 : from}
        field={field}
        auto={{ isChosen: from === 'auto', onPick: () => put({ from: 'auto' }) }}
        onChange={(next) => put({ from: next })}
      />{' '}
      to{' '}
      <PickPosition
        label="End"
        position={to === 'auto' ? 0 : to}
        field={field}
        auto={{ isChosen: to === 'auto', onPick: () => put({ to: 'auto' }) }}
        onChange={(next) => put({ to: next })}
      />{' '}
      among <PickPer value={when.per} fields={fields} except={field} onPick={(per) => put({ per })} />, growing from the{' '}
      <PickWord
        label="Side"
        value={when.side ?? 'start'}
        words={{ start: 'left', end: 'right' }}
        onPick={(side) => put({ side })}
      />{' '}
      with{' '}
      <PickWord
        label="Axis"
        value={when.axis ?? 'zero'}
        words={{ zero: 'its axis at zero', middle: 'its axis in the middle', none: 'no axis' }}
        onPick={(axis) => put({ axis })}
      />{' '}
      and{' '}
      <PickWord
        label="Value"
        value={when.showValue === false ? 'hidden' : 'shown'}
        words={{ shown: 'the value on it', hidden: 'no value' }}
        onPick={(value) => put({ showValue: value === 'shown' })}
      />
    </>
  );
}
