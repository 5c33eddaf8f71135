import type { IconSet } from '../../looks/icon-sets';

/**
 * The icon sets of ISO/IEC 29500-1, 18.18.42, as those that there are here: alike in number and in what they are meant
 * to say.
 */
export const FROM_FAMILY: Readonly<Record<string, IconSet>> = {
  '3Arrows': 'arrows3',
  '3ArrowsGray': 'arrows3',
  '3Flags': 'verdict3',
  '3TrafficLights1': 'verdict3',
  '3TrafficLights2': 'verdict3',
  '3Signs': 'verdict3',
  '3Symbols': 'verdict3',
  '3Symbols2': 'verdict3',
  '4Arrows': 'arrows4',
  '4ArrowsGray': 'arrows4',
  '4RedToBlack': 'arrows4',
  '4Rating': 'arrows4',
  '4TrafficLights': 'arrows4',
  '5Arrows': 'arrows5',
  '5ArrowsGray': 'arrows5',
  '5Rating': 'antenna5',
  '5Quarters': 'moon5',
};

/** The set in which the standard comes closest, and whether it says the same. */
export const TO_FAMILY: Readonly<Record<IconSet, { readonly family: string; readonly isSame: boolean }>> = {
  arrows3: { family: '3Arrows', isSame: true },
  arrows4: { family: '4Arrows', isSame: true },
  arrows5: { family: '5Arrows', isSame: true },
  verdict3: { family: '3Symbols', isSame: true },
  stars3: { family: '3Signs', isSame: false },
  moon5: { family: '5Quarters', isSame: true },
  battery5: { family: '5Rating', isSame: false },
  antenna5: { family: '5Rating', isSame: true },
  weather5: { family: '5Arrows', isSame: false },
};
