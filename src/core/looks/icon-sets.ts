/** The sets of icons, each from the one for low values to the one for high ones. */
export const ICON_SETS = {
  arrows3: ['down', 'level', 'up'],
  arrows4: ['down', 'falling', 'rising', 'up'],
  arrows5: ['down', 'falling', 'level', 'rising', 'up'],
  verdict3: ['cross in a ring', 'warning triangle', 'tick in a ring'],
  stars3: ['empty star', 'half star', 'full star'],
  moon5: ['new moon', 'crescent', 'half moon', 'gibbous moon', 'full moon'],
  battery5: ['empty battery', 'quarter battery', 'half battery', 'three-quarter battery', 'full battery'],
  antenna5: ['no signal', 'one bar', 'two bars', 'three bars', 'four bars'],
  weather5: ['storm', 'rain', 'cloud', 'sun and cloud', 'sun'],
} as const satisfies Record<string, readonly string[]>;

export type IconSet = keyof typeof ICON_SETS;
