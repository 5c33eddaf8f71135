import {
  converter,
  formatHex,
  interpolate,
  modeLab,
  modeOklab,
  modeRgb,
  useMode as register,
  clampRgb,
} from 'culori/fn';
import { itemAt, lastItem } from '../values/item-at';

register(modeRgb);
register(modeOklab);
register(modeLab);

/** The space in which colours are mixed: OKLab (Ottosson 2020), CIELAB with the D50 white of CSS, or plain sRGB. */
export type ColorSpace = 'oklab' | 'lab' | 'rgb';

const toRgb = converter('rgb');
const hexOf = (color: Parameters<typeof toRgb>[0]): string => formatHex(clampRgb(toRgb(color)!));

/** Colours between stops, mixed in one space. What falls out of sRGB is clipped. */
export class ColorRamp {
  private readonly between: readonly ((share: number) => string)[];

  constructor(
    private readonly colors: readonly string[],
    space: ColorSpace,
  ) {
    this.between = colors.slice(1).map((color, at) => {
      const mix = interpolate([itemAt(colors, at), color], space);
      return (share) => hexOf(mix(share));
    });
  }

  /**
   * The colour of a number among positions that do not fall, one a colour; beyond the ends the end colour. Where
   * positions meet, the later colour wins.
   */
  at(value: number, positions: readonly number[]): string {
    if (value < itemAt(positions, 0)) return hexOf(itemAt(this.colors, 0));
    let segment = 0;
    while (segment < positions.length && value >= itemAt(positions, segment)) segment++;
    if (segment === positions.length) return hexOf(lastItem(this.colors));
    const [low, high] = [itemAt(positions, segment - 1), itemAt(positions, segment)];
    return itemAt(this.between, segment - 1)((value - low) / (high - low));
  }

  /** The colour of the middle stop, or the mean of the middle two. */
  middle(): string {
    const count = this.colors.length;
    return count % 2 ? hexOf(itemAt(this.colors, (count - 1) / 2)) : itemAt(this.between, count / 2 - 1)(0.5);
  }
}
