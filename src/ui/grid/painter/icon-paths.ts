import { __iconNode as alertTriangle } from '@tabler/icons-react/icons/IconAlertTriangle';
import { __iconNode as antenna1 } from '@tabler/icons-react/icons/IconAntennaBars1';
import { __iconNode as antenna2 } from '@tabler/icons-react/icons/IconAntennaBars2';
import { __iconNode as antenna3 } from '@tabler/icons-react/icons/IconAntennaBars3';
import { __iconNode as antenna4 } from '@tabler/icons-react/icons/IconAntennaBars4';
import { __iconNode as antenna5 } from '@tabler/icons-react/icons/IconAntennaBars5';
import { __iconNode as arrowDown } from '@tabler/icons-react/icons/IconArrowDown';
import { __iconNode as arrowDownRight } from '@tabler/icons-react/icons/IconArrowDownRight';
import { __iconNode as arrowRight } from '@tabler/icons-react/icons/IconArrowRight';
import { __iconNode as arrowUp } from '@tabler/icons-react/icons/IconArrowUp';
import { __iconNode as arrowUpRight } from '@tabler/icons-react/icons/IconArrowUpRight';
import { __iconNode as battery0 } from '@tabler/icons-react/icons/IconBattery';
import { __iconNode as battery1 } from '@tabler/icons-react/icons/IconBattery1';
import { __iconNode as battery2 } from '@tabler/icons-react/icons/IconBattery2';
import { __iconNode as battery3 } from '@tabler/icons-react/icons/IconBattery3';
import { __iconNode as battery4 } from '@tabler/icons-react/icons/IconBattery4';
import { __iconNode as check } from '@tabler/icons-react/icons/IconCircleCheck';
import { __iconNode as cross } from '@tabler/icons-react/icons/IconCircleX';
import { __iconNode as cloud } from '@tabler/icons-react/icons/IconCloud';
import { __iconNode as rain } from '@tabler/icons-react/icons/IconCloudRain';
import { __iconNode as storm } from '@tabler/icons-react/icons/IconCloudStorm';
import { __iconNode as haze } from '@tabler/icons-react/icons/IconHaze';
import { __iconNode as star } from '@tabler/icons-react/icons/IconStar';
import { __iconNode as starFilled } from '@tabler/icons-react/icons/IconStarFilled';
import { __iconNode as starHalf } from '@tabler/icons-react/icons/IconStarHalfFilled';
import { __iconNode as sun } from '@tabler/icons-react/icons/IconSunHigh';
import type { IconSet } from '../../../core/looks/icon-sets';

/**
 * One icon on a square of 24: paths that are drawn, and paths that are filled. A tone is one of the theme's; without
 * it, ink.
 */
export interface IconPaths {
  readonly drawn: readonly string[];
  readonly filled: readonly string[];
  readonly tone?: 'bad' | 'doubtful' | 'good';
}

type Node = readonly (readonly [string, { readonly d?: string }])[];

const pathsOf = (node: Node): string[] => node.flatMap(([, { d }]) => d ?? []);
const drawn = (node: unknown, tone?: IconPaths['tone']): IconPaths => ({
  drawn: pathsOf(node as Node),
  filled: [],
  ...(tone ? { tone } : {}),
});
const filled = (node: unknown, outline?: unknown): IconPaths => ({
  drawn: outline ? pathsOf(outline as Node) : [],
  filled: pathsOf(node as Node),
});

const DISC = 'M3 12a9 9 0 1 0 18 0a9 9 0 1 0 -18 0';
/** The lit part of the moon's disc, from its right edge to an arc that bulges so far to a side. */
const lit = (inner: string): IconPaths => ({ drawn: [DISC], filled: [`M12 3A9 9 0 0 1 12 21${inner}`] });

/**
 * The icons of each set: general ones, and the moon's phases. Each differs from its neighbours in shape, and not only
 * in tone.
 */
export const ICON_PATHS: Readonly<Record<IconSet, readonly IconPaths[]>> = {
  arrows3: [drawn(arrowDown), drawn(arrowRight), drawn(arrowUp)],
  arrows4: [drawn(arrowDown), drawn(arrowDownRight), drawn(arrowUpRight), drawn(arrowUp)],
  arrows5: [drawn(arrowDown), drawn(arrowDownRight), drawn(arrowRight), drawn(arrowUpRight), drawn(arrowUp)],
  verdict3: [drawn(cross, 'bad'), drawn(alertTriangle, 'doubtful'), drawn(check, 'good')],
  stars3: [drawn(star), filled(starHalf, star), filled(starFilled)],
  moon5: [
    { drawn: [DISC], filled: [] },
    lit('A6 9 0 0 0 12 3'),
    lit('L12 3'),
    lit('A6 9 0 0 1 12 3'),
    { drawn: [DISC], filled: [DISC] },
  ],
  battery5: [drawn(battery0), drawn(battery1), drawn(battery2), drawn(battery3), drawn(battery4)],
  antenna5: [drawn(antenna1), drawn(antenna2), drawn(antenna3), drawn(antenna4), drawn(antenna5)],
  weather5: [drawn(storm), drawn(rain), drawn(cloud), drawn(haze), drawn(sun)],
};
