import { useTranslations } from 'use-intl';
import { keysOf } from '../../../core/values/typed-keys';
import { foldText } from '../../../core/values/fold-text';
import { looksByValue } from '../../../core/rules/suggest/looks-by-value';
import type { CategoryWhen } from '../../../core/rules/kinds/category';
import { PALETTES, type PaletteName } from '../../../core/looks/palettes';
import { useSessionState } from '../../sheet/use-session';
import classes from '../Bench.module.css';
import { Pick } from '../parts/Pick';
import { PickLook } from '../look/PickLook';
import { PickWord } from '../parts/PickWord';
import type { BenchKind, ConditionProps } from './bench-kind';

export const categoryBench: BenchKind<CategoryWhen> = {
  title: 'lookEachValue',
  says: 'everyDistinctTextGets',
  needs: ['texts'],
  Condition: CategoryCondition,
  Outcomes: CategoryOutcomes,
};

const PALETTE_WORDS = {
  set2: 'soft',
  'okabe-ito': 'strongSafeColourBlind',
  dark2: 'dark',
  pastel: 'pale',
} as const satisfies Record<PaletteName, string>;
const MAX_VALUES = 12;
/** Values without a look that are listed. */
const MAX_MISSING = 6;

function CategoryCondition({ when, onChange }: ConditionProps<CategoryWhen>) {
  const t = useTranslations('bench');
  const texts = useSessionState((state) => state.profile?.texts) ?? [];
  const palette = typeof when.palette === 'string' ? when.palette : 'pastel';
  const choose = (how: 'palette' | 'looks') => {
    if (how === 'palette') return onChange({ kind: 'category', palette: 'pastel' });
    const looks = looksByValue(texts.slice(0, MAX_VALUES).map(({ text }) => text));
    onChange({ kind: 'category', looks: Object.keys(looks).length ? looks : { value: { look: 'clear' } } });
  };
  return (
    <>
      {t('hasValueEach')}{' '}
      <PickWord
        label={t('looks')}
        value={when.looks ? 'looks' : 'palette'}
        words={{ palette: t('colourItsOwn'), looks: t('lookChosen') }}
        onPick={choose}
      />
      {!when.looks && (
        <>
          {' '}
          {t('fromTheColours')}{' '}
          <Pick
            label={t('colours')}
            value={palette}
            shown={t(PALETTE_WORDS[palette])}
            options={keysOf(PALETTES).map((name) => ({
              id: name,
              words: <PaletteWords name={name} />,
            }))}
            onPick={(name) => onChange({ ...when, palette: name })}
          />{' '}
          {t('inTheOrder')}{' '}
          <PickWord
            label={t('order')}
            value={when.order ?? 'seen'}
            words={{ seen: t('whichTheyMet'), alphabet: t('ofTheAlphabet') }}
            onPick={(order) => onChange({ ...when, order })}
          />
        </>
      )}
    </>
  );
}

function PaletteWords({ name }: { readonly name: PaletteName }) {
  const t = useTranslations('bench');
  return (
    <span className={classes.palette}>
      {PALETTES[name].map((color) => (
        <span key={color} style={{ background: color }} />
      ))}
      {t(PALETTE_WORDS[name])}
    </span>
  );
}

function CategoryOutcomes({ when, onChange }: ConditionProps<CategoryWhen>) {
  const t = useTranslations('bench');
  const texts = useSessionState((state) => state.profile?.texts) ?? [];
  const { looks } = when;
  if (!looks) return null;
  const countOf = (value: string): number =>
    texts.reduce((sum, { text, count }) => sum + (foldText(text) === foldText(value) ? count : 0), 0);
  const missing = looksByValue(
    texts.map(({ text }) => text),
    Object.keys(looks),
  );
  return (
    <ol className={classes.bands} aria-label={t('values')}>
      {Object.entries(looks).map(([value, look]) => (
        <li key={value} className={classes.band}>
          <span className={classes.bandRange}>{value}</span>
          <PickLook
            label={t('lookOfValue', { value })}
            value={look}
            allowNone
            onPick={(next) => onChange({ ...when, looks: { ...looks, [value]: next } })}
          />
        </li>
      ))}
      {Object.entries(missing)
        .slice(0, MAX_MISSING)
        .map(([text, look]) => (
          <li key={text} className={classes.band}>
            <span className={classes.bandRange}>{text}</span>
            <button
              type="button"
              className={classes.show}
              onClick={() => onChange({ ...when, looks: { ...looks, [text]: look } })}
            >
              {t('giveLookText', { text: countOf(text) })}
            </button>
          </li>
        ))}
    </ol>
  );
}
