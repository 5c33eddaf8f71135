import { PickWord } from './PickWord';

/** What of a number is compared: its value, as it is shown, or its size. */
interface HowCompared {
  readonly asShown?: boolean;
  readonly magnitude?: boolean;
}

type How = 'exact' | 'shown' | 'size' | 'both';
const HOW: Record<How, string> = {
  exact: 'exactly',
  shown: 'as shown, rounded like the display',
  size: 'by size, whatever the sign',
  both: 'as shown and by size',
};
const HOWS: Record<How, HowCompared> = {
  exact: {},
  shown: { asShown: true },
  size: { magnitude: true },
  both: { asShown: true, magnitude: true },
};
const howOf = ({ asShown, magnitude }: HowCompared): How =>
  asShown ? (magnitude ? 'both' : 'shown') : magnitude ? 'size' : 'exact';

/** How numbers are compared. */
export function PickHow({
  value,
  onPick,
}: {
  readonly value: HowCompared;
  readonly onPick: (how: HowCompared) => void;
}) {
  return <PickWord label="How" value={howOf(value)} words={HOW} onPick={(how) => onPick(HOWS[how])} />;
}
