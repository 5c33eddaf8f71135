import { useTranslations } from 'use-intl';
import { keysOf } from '../../../core/values/typed-keys';
import { ICON_SETS } from '../../../core/looks/icon-sets';
import { lookProperties, SIDES, type Look, lookValue } from '../../../core/looks/look';
import { Act } from '../../actions/Act';
import { MARKS } from '../../actions/marks';
import { LookIcon } from '../../legend/LookIcon';
import { useLooks } from '../../legend/use-looks';
import shared from '../Bench.module.css';
import classes from './LookEditor.module.css';
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
  const t = useTranslations('bench');
  const tMark = useTranslations('actions');
  const { saved } = useLooks();
  const shown = lookProperties(look, saved);
  const put = (part: Partial<Look>) => onChange({ ...look, ...part });
  const text = lookValue(shown, 'text');
  const icon = lookValue(shown, 'icon');
  const icons = keysOf(ICON_SETS).flatMap((set) =>
    ICON_SETS[set].map((name, index) => ({ id: `${set} ${index}`, name, icon: { set, index } })),
  );
  return (
    <div className={classes.lookEditor} data-help="looks" role="group" aria-label={t('itsOwnLook')}>
      <LookPreview look={look} />
      <FillEditor fill={lookValue(shown, 'fill')} onChange={(fill) => put({ fill })} />
      <div className={shared.lookLine}>
        <span>{t('text')}</span>
        <PickColor label={t('textColour')} value={text ?? '#22252b'} onPick={(color) => put({ text: color })} />
        {MARKS.map(({ mark, label, icon: picture }) => (
          <Act
            key={mark}
            label={tMark(label)}
            icon={picture}
            isOn={shown.get(mark) === true}
            onAct={() => put({ [mark]: shown.get(mark) !== true })}
          />
        ))}
      </div>
      <BorderEditor
        border={look.border}
        shown={SIDES.map((side) => lookValue(shown, `border.${side}`))}
        onChange={(border) => put({ border })}
      />
      <div className={shared.lookLine}>
        <span>{t('icon')}</span>
        <Pick
          label={t('icon')}
          value={icon ? `${icon.set} ${icon.index}` : ''}
          shown={icon ? <LookIcon icon={icon} /> : t('none')}
          options={icons.map(({ id, name, icon: shownIcon }) => ({
            id,
            words: (
              <span className={shared.palette}>
                <LookIcon icon={shownIcon} /> {name}
              </span>
            ),
          }))}
          onPick={(picked) => put({ icon: icons.find(({ id }) => id === picked)?.icon })}
        />
        <span>{t('numbersAs')}</span>
        <NameInput
          label={t('numberFormat')}
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
