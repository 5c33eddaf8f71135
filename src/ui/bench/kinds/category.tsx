import { inDigits } from '../../../core/values/counted';
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
  title: 'A look for each value',
  says: 'every distinct text gets a colour, or the look you choose',
  needs: ['texts'],
  Condition: CategoryCondition,
  Outcomes: CategoryOutcomes,
};

const PALETTE_WORDS: Record<PaletteName, string> = {
  set2: 'soft',
  'okabe-ito': 'strong, safe for colour-blind readers',
  dark2: 'dark',
  pastel: 'pale',
};
const MAX_VALUES = 12;
/** Values without a look that are listed. */
const MAX_MISSING = 6;

function CategoryCondition({ when, onChange }: ConditionProps<CategoryWhen>) {
  const texts = useSessionState((state) => state.profile?.texts) ?? [];
  const palette = typeof when.palette === 'string' ? when.palette : 'pastel';
  const choose = (how: 'palette' | 'looks') => {
    if (how === 'palette') return onChange({ kind: 'category', palette: 'pastel' });
    const looks = looksByValue(texts.slice(0, MAX_VALUES).map(({ text }) => text));
    onChange({ kind: 'category', looks: Object.keys(looks).length ? looks : { value: { look: 'clear' } } });
  };
  return (
    <>
      has a value, each with{' '}
      <PickWord
        label="Looks"
        value={when.looks ? 'looks' : 'palette'}
        words={{ palette: 'a colour of its own', looks: 'a look chosen for it' }}
        onPick={choose}
      />
      {!when.looks && (
        <>
          {' '}
          from the colours{' '}
          <Pick
            label="Colours"
            value={palette}
            shown={PALETTE_WORDS[palette]}
            options={keysOf(PALETTES).map((name) => ({
              id: name,
              words: <PaletteWords name={name} />,
            }))}
            onPick={(name) => onChange({ ...when, palette: name })}
          />{' '}
          in the order{' '}
          <PickWord
            label="Order"
            value={when.order ?? 'seen'}
            words={{ seen: 'in which they are met', alphabet: 'of the alphabet' }}
            onPick={(order) => onChange({ ...when, order })}
          />
        </>
      )}
    </>
  );
}

function PaletteWords({ name }: { readonly name: PaletteName }) {
  return (
    <span className={classes.palette}>
      {PALETTES[name].map((color) => (
        <span key={color} style={{ background: color }} />
      ))}
      {PALETTE_WORDS[name]}
    </span>
  );
}

function CategoryOutcomes({ when, onChange }: ConditionProps<CategoryWhen>) {
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
    <ol className={classes.bands} aria-label="Values">
      {Object.entries(looks).map(([value, look]) => (
        <li key={value} className={classes.band}>
          <span className={classes.bandRange}>{value}</span>
          <PickLook
            label={`Look of ${value}`}
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
              give it a look ({inDigits(countOf(text))})
            </button>
          </li>
        ))}
    </ol>
  );
}
