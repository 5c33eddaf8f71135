import { ICON_SETS, type IconSet } from '../../../looks/icon-sets';
import type { Look } from '../../../looks/look';
import { keysOf } from '../../../values/typed-keys';
import { bandLooks } from '../../kinds/bands';
import { FIRST_LOOKS } from '../../kinds/key';
import { FIRST_SCALE } from '../../kinds/scale';
import type { When } from '../../kinds/registry';
import { looksByValue } from '../looks-by-value';
import type { PhraseCursor, PhraseField } from './phrase-cursor';

type Words<T> = Readonly<Record<string, T>>;

const allOf = <T>(words: readonly string[], meaning: T): Words<T> =>
  Object.fromEntries(words.map((each) => [each, meaning]));

const BANDS = allOf(['in bands', 'with bands', 'as bands', 'in ranges', 'in groups', 'bands', 'cut at'], true);
const CUTS = { at: true, 'cut at': true, by: true };
const SCALE = allOf(
  [
    'in a colour scale',
    'in a color scale',
    'as a colour scale',
    'as a color scale',
    'as a scale',
    'with a colour scale',
  ],
  true,
);
const BARS = allOf(['with bars', 'with data bars', 'with a bar', 'as bars', 'as data bars'], true);
const BY_VALUE = allOf(
  [
    'with a look for each value',
    'with a colour for each value',
    'with a color for each value',
    'a look for each value',
    'a colour for each value',
    'a color for each value',
    'coloured by value',
    'colored by value',
  ],
  true,
);
const KEY = allOf(['checked against', 'is checked against', 'checked by', 'against the key', 'against'], true);

/** Icons by the word for them, in the set that has as many as are asked for. */
const ICONS: Words<string> = {
  icons: 'arrows',
  ...Object.fromEntries(keysOf(ICON_SETS).map((set) => [nameOf(set), nameOf(set)])),
  verdicts: 'verdict',
  moons: 'moon',
  batteries: 'battery',
  antennas: 'antenna',
};

function nameOf(set: IconSet): string {
  return set.replace(/\d$/, '');
}

/** The most values that a look for each of them is made for; beyond, colours of a palette take turns. */
const MAX_VALUES = 12;

/** How a whole field is shown: in bands, along a scale, with bars, icons, a look for each value, or against a key. */
export function readSpread(cursor: PhraseCursor, field: PhraseField): When | undefined {
  for (const read of [readBands, readScale, readBars, readIcons, readByValue, readKey]) {
    const found = cursor.attempt(() => read(cursor, field));
    if (found) return found;
  }
  return undefined;
}

/** "in bands at 5% and 10%", with a look for each band after "in", or looks that are proposed. */
function readBands(cursor: PhraseCursor, field: PhraseField): When | undefined {
  if (!cursor.word(BANDS)) return undefined;
  cursor.word(CUTS);
  const cuts = cursor.listOf(() => cursor.constant(field));
  if (cuts.length === 0) return void cursor.fail('where the bands are cut, such as “at 5 and 10”');
  const isNamed = cursor.word({ in: true, as: true }) === true;
  const looks: readonly Look[] = isNamed ? cursor.listOf(() => cursor.anyLook()) : bandLooks(cuts.length + 1);
  if (looks.length !== cuts.length + 1) return void cursor.fail(`${cuts.length + 1} looks, one for each band`);
  return { kind: 'bands', cuts, looks };
}

/** "in a colour scale", "in a colour scale from white to red", "… from red over yellow to green". */
function readScale(cursor: PhraseCursor): When | undefined {
  if (!cursor.word(SCALE)) return undefined;
  if (!cursor.word({ from: true })) return FIRST_SCALE;
  const colors = [cursor.colour()];
  while (cursor.word({ over: true, through: true, to: true })) colors.push(cursor.colour());
  const stops = colors.flatMap((color, at) => {
    const place =
      at === 0 ? 'least' : at === colors.length - 1 ? 'greatest' : { percent: (100 * at) / (colors.length - 1) };
    return color === undefined ? [] : [{ at: place, color } as const];
  });
  return stops.length === colors.length && stops.length > 1 ? { kind: 'scale', stops } : undefined;
}

/** "with bars", "with bars in gold". */
function readBars(cursor: PhraseCursor): When | undefined {
  if (!cursor.word(BARS)) return undefined;
  const color = cursor.attempt(() => (cursor.word({ in: true }) ? cursor.colour() : undefined));
  return { kind: 'bar', ...(color === undefined ? {} : { color }) };
}

/** Where three icons are cut that are not said to be cut elsewhere: in thirds of the way from least to greatest. */
const THIRDS = [{ at: { percent: 33 } }, { at: { percent: 67 } }] as const;

/** "with stars", "with stars at 70 and 90": one icon more than cuts. */
function readIcons(cursor: PhraseCursor, field: PhraseField): When | undefined {
  if (!cursor.word({ with: true, as: true })) return undefined;
  const name = cursor.word(ICONS);
  if (name === undefined) return undefined;
  if (!cursor.word({ at: true })) {
    const thirds = keysOf(ICON_SETS).find((each) => nameOf(each) === name && ICON_SETS[each].length === 3);
    return thirds ? { kind: 'icons', set: thirds, cuts: THIRDS } : void cursor.fail('“at” and numbers', ['at']);
  }
  const cuts = cursor.listOf(() => cursor.constant(field));
  const set = keysOf(ICON_SETS).find((each) => nameOf(each) === name && ICON_SETS[each].length === cuts.length + 1);
  if (!set) {
    const sizes = keysOf(ICON_SETS).flatMap((each) => (nameOf(each) === name ? [ICON_SETS[each].length - 1] : []));
    return void cursor.fail(`${sizes.join(' or ')} numbers, one fewer than there are ${name}`);
  }
  return { kind: 'icons', set, cuts: cuts.map((at) => ({ at })) };
}

function readByValue(cursor: PhraseCursor, { texts = [] }: PhraseField): When | undefined {
  if (!cursor.word(BY_VALUE)) return undefined;
  const looks = looksByValue(texts.slice(0, MAX_VALUES));
  return texts.length === 0 || texts.length > MAX_VALUES
    ? { kind: 'category', palette: 'pastel' }
    : { kind: 'category', looks };
}

/** "checked against Key": right, wrong and empty answers. */
function readKey(cursor: PhraseCursor, field: PhraseField): When | undefined {
  if (!cursor.word(KEY)) return undefined;
  const key = cursor.field();
  if (!key || key.id === field.id) return undefined;
  return { kind: 'key', expect: { field: key.id }, looks: FIRST_LOOKS };
}
