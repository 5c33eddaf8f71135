import { IconBold, IconItalic, IconStrikethrough, IconUnderline } from '@tabler/icons-react';
import { ICON_SETS, type IconSet } from '../../../core/looks/icon-sets';
import { lookProperties, SIDES, type BorderSide, type Fill, type Look } from '../../../core/looks/look';
import { Act } from '../../actions/Act';
import { LookIcon } from '../../legend/LookIcon';
import { useLooks } from '../../legend/use-looks';
import classes from '../Bench.module.css';
import { NameInput } from '../parts/NameInput';
import { Pick } from '../parts/Pick';
import { PickColor } from '../parts/PickColor';
import { PickWord } from '../parts/PickWord';
import { FillEditor } from './FillEditor';
import { LookPreview } from './LookPreview';

interface Props {
  readonly look: Look;
  readonly onChange: (look: Look) => void;
}

const MARKS = [
  { mark: 'bold', label: 'Bold', icon: IconBold },
  { mark: 'italic', label: 'Italic', icon: IconItalic },
  { mark: 'underline', label: 'Underline', icon: IconUnderline },
  { mark: 'strike', label: 'Strike through', icon: IconStrikethrough },
] as const;

/** What a look shows, property by property, over the saved one that it starts from; what is not touched stays as the cell has it. */
export function LookEditor({ look, onChange }: Props) {
  const { saved } = useLooks();
  const shown = lookProperties(look, saved);
  const put = (part: Partial<Look>) => onChange({ ...look, ...part });
  const text = shown.get('text') as string | undefined;
  const icon = shown.get('icon') as Look['icon'];
  const sets = Object.keys(ICON_SETS) as IconSet[];
  return (
    <div className={classes.lookEditor} role="group" aria-label="Its own look">
      <LookPreview look={look} />
      <FillEditor fill={shown.get('fill') as Fill | undefined} onChange={(fill) => put({ fill })} />
      <div className={classes.lookLine}>
        <span>Text</span>
        <PickColor label="Text colour" value={text ?? '#22252b'} onPick={(color) => put({ text: color })} />
        {MARKS.map(({ mark, label, icon: picture }) => (
          <Act key={mark} label={label} icon={picture} isOn={shown.get(mark) === true} onAct={() => put({ [mark]: shown.get(mark) !== true })} />
        ))}
      </div>
      <BorderLine
        border={look.border}
        shown={SIDES.map((side) => shown.get(`border.${side}`) as BorderSide | undefined)}
        onChange={(border) => put({ border })}
      />
      <div className={classes.lookLine}>
        <span>Icon</span>
        <Pick
          label="Icon"
          value={icon ? `${icon.set} ${icon.index}` : ''}
          shown={icon ? <LookIcon icon={icon} /> : 'none'}
          options={sets.flatMap((set) =>
            ICON_SETS[set].map((name, index) => ({
              id: `${set} ${index}`,
              words: (
                <span className={classes.palette}>
                  <LookIcon icon={{ set, index }} /> {name}
                </span>
              ),
            })),
          )}
          onPick={(id) => put({ icon: { set: id.split(' ')[0]!, index: Number(id.split(' ')[1]) } })}
        />
        <span>Numbers as</span>
        <NameInput
          label="Number format"
          placeholder="0.0%"
          value={look.number ?? ''}
          onChange={(number) => onChange(number === '' ? withoutNumber(look) : { ...look, number })}
        />
      </div>
    </div>
  );
}

function withoutNumber({ number: _, ...look }: Look): Look {
  return look;
}

const LINES = { none: 'none', solid: 'plain', dashed: 'dashed', dotted: 'dotted', double: 'double' } as const;
const WHERE = { around: 'all around', top: 'above', right: 'on the right', bottom: 'below', left: 'on the left' } as const;

interface BorderProps {
  readonly border: Look['border'];
  /** As the look shows it, side by side. */
  readonly shown: readonly (BorderSide | undefined)[];
  readonly onChange: (border: NonNullable<Look['border']>) => void;
}

function BorderLine({ border, shown, onChange }: BorderProps) {
  const side = (Object.keys(WHERE) as (keyof typeof WHERE)[]).find((each) => border?.[each]) ?? 'around';
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
