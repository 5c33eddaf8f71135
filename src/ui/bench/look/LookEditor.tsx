import { itemAt } from '../../../core/values/item-at';
import { ICON_SETS, type IconSet } from '../../../core/looks/icon-sets';
import { lookProperties, SIDES, type BorderSide, type Fill, type Look } from '../../../core/looks/look';
import { Act } from '../../actions/Act';
import { MARKS } from '../../actions/marks';
import { LookIcon } from '../../legend/LookIcon';
import { useLooks } from '../../legend/use-looks';
import classes from '../Bench.module.css';
import { NameInput } from '../parts/NameInput';
import { Pick } from '../parts/Pick';
import { PickColor } from '../parts/PickColor';
import { BorderEditor } from './BorderEditor';
import { FillEditor } from './FillEditor';
import { LookPreview } from './LookPreview';

interface Props {
  readonly look: Look;
  readonly onChange: (look: Look) => void;
}

/**
 * A look, property by property, over the saved one that it starts from; absent properties stay as the cell has them.
 */
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
          <Act
            key={mark}
            label={label}
            icon={picture}
            isOn={shown.get(mark) === true}
            onAct={() => put({ [mark]: shown.get(mark) !== true })}
          />
        ))}
      </div>
      <BorderEditor
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
          onPick={(id) => put({ icon: { set: itemAt(id.split(' '), 0), index: Number(id.split(' ')[1]) } })}
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
