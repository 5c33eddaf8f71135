import { converter, differenceEuclidean, modeOklab, modeOklch, modeRgb, useMode as register } from 'culori/fn';
import equal from 'fast-deep-equal';
import { contrastRatio } from '../../looks/contrast';
import { seenAs } from '../../looks/vision';
import type { AdviceContext, Adviser } from './advice';
import { outcomeLooks, pairsOf, type OutcomeLook } from './outcome-looks';

register(modeRgb);
register(modeOklab);
register(modeOklch);

const distance = differenceEuclidean('oklab');
const toLch = converter('oklch');
/** Kinds of sight without one kind of cone. */
const CONES = ['protan', 'deutan', 'tritan'] as const;
/** Distances in OKLab: fills that most people distinguish at a glance, and fills that cannot be distinguished. */
const [APART, ALIKE] = [0.06, 0.03];

type FilledLook = OutcomeLook & { readonly ground: string };

/** Pairs of outcomes whose only difference is the fill, and whose fills most people distinguish at a glance. */
function pairsThatDifferInFill(context: AdviceContext): (readonly [FilledLook, FilledLook])[] {
  const rest = ({ properties }: OutcomeLook) =>
    JSON.stringify([...properties].filter(([name]) => name !== 'fill' && name !== 'text').sort());
  const filled = outcomeLooks(context).filter((look): look is FilledLook => look.ground !== undefined);
  return pairsOf(filled).filter(
    ([one, other]) => rest(one) === rest(other) && distance(one.ground, other.ground) >= APART,
  );
}

/** One piece of advice for each set of rules is enough. */
function oncePerRules(found: ReturnType<Adviser>): ReturnType<Adviser> {
  return found.filter(({ rules }, at) => found.findIndex((other) => equal(other.rules, rules)) === at);
}

const named = (one: OutcomeLook, other: OutcomeLook): string =>
  one.rule === other.rule ? `two outcomes of “${one.name}”` : `“${one.name}” and “${other.name}”`;
const rulesOf = (one: OutcomeLook, other: OutcomeLook): string[] => [...new Set([one.rule, other.rule])];

/** Outcomes whose fills come close to one another for people who see colours otherwise. */
export const alikeForColourBlind: Adviser = (context) =>
  oncePerRules(
    pairsThatDifferInFill(context).flatMap(([one, other]) => {
      const visions = CONES.flatMap((vision) =>
        distance(seenAs(one.ground, vision), seenAs(other.ground, vision)) < ALIKE ? vision : [],
      );
      if (visions.length === 0) return [];
      const message = `The fills of ${named(one, other)} look alike to people with ${visions.join(' and ')} vision. Make one of them darker, or bold.`;
      return [{ rules: rulesOf(one, other), cells: [], message, repair: null }];
    }),
  );

/** Outcomes over the same cells that differ by hue alone, at the same lightness. */
export const colourOnly: Adviser = (context) =>
  oncePerRules(
    pairsThatDifferInFill(context).flatMap(([one, other]) => {
      if (!equal(one.reads, other.reads) || contrastRatio(one.ground, other.ground) >= 1.25) return [];
      const message = `${named(one, other).replace(/^t/, 'T')} are told apart by hue alone. Bold text, an icon or a darker fill would help everybody.`;
      return [{ rules: rulesOf(one, other), cells: [], message, repair: null }];
    }),
  );

/** Hues that people can keep in mind at once. */
const MAX_HUES = 6;

/** More hues on one sheet than can be kept in mind. */
export const tooManyColours: Adviser = (context) => {
  const looks = outcomeLooks(context).filter(({ ground }) => ground !== undefined && (toLch(ground)?.c ?? 0) > 0.02);
  // Hues within 30 degrees are one to the eye.
  const hues = new Set(looks.map(({ ground }) => Math.round((toLch(ground)?.h ?? 0) / 30) % 12));
  if (hues.size <= MAX_HUES) return [];
  const rules = [...new Set(looks.map(({ rule }) => rule))];
  return [
    {
      rules,
      cells: [],
      message: `The rules show ${hues.size} hues at once. Up to ${MAX_HUES} can be kept in mind.`,
      repair: null,
    },
  ];
};
