import { useTranslations } from 'use-intl';
import { eachText } from '../../../texts/texts';
import { PickWord } from './PickWord';

/** What of a number is compared: its value, as it is shown, or its size. */
interface HowCompared {
  readonly asShown?: boolean;
  readonly magnitude?: boolean;
}

type How = 'exact' | 'shown' | 'size' | 'both';
const HOW = {
  exact: 'exactly',
  shown: 'asShownRoundedLike',
  size: 'bySizeWhateverSign',
  both: 'asShownBySize',
} as const satisfies Record<How, string>;
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
  const t = useTranslations('bench');
  return (
    <PickWord
      label={t('how')}
      value={howOf(value)}
      words={eachText(HOW, (key) => t(key))}
      onPick={(how) => onPick(HOWS[how])}
    />
  );
}
