import {
  converter,
  filterDeficiencyDeuter,
  filterDeficiencyProt,
  filterDeficiencyTrit,
  filterGrayscale,
  formatHex,
  modeRgb,
  useMode as register,
  type Rgb,
} from 'culori/fn';

register(modeRgb);
const toRgb = converter('rgb');

/** Without one kind of cone (Machado, Oliveira and Fernandes 2009, severity 1), or in grey print. */
const VISIONS = {
  protan: filterDeficiencyProt(1),
  deutan: filterDeficiencyDeuter(1),
  tritan: filterDeficiencyTrit(1),
  grey: filterGrayscale(1, 'rgb'),
} as Readonly<Record<'protan' | 'deutan' | 'tritan' | 'grey', (color: Rgb) => Rgb>>;
export type Vision = keyof typeof VISIONS;

/** A colour as it is seen with another vision. */
export const seenAs = (hex: string, vision: Vision): string => formatHex(VISIONS[vision](toRgb(hex)!));
