import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { useTranslations } from 'use-intl';
import classes from './BenchEdge.module.css';

/** The least height at which sentence and picture can be used, in pixels. */
export const MIN_PX = 180;
/** What stays for the rest of the page: the bars above and below the sheet, and ten of its rows. */
export const REST_PX = 450;
const STEP_PX = 24;

const greatest = (): number => Math.max(MIN_PX, window.innerHeight - REST_PX);

interface Props {
  readonly heightPx: number;
  readonly onHeight: (heightPx: number) => void;
}

/** The upper edge of the bench, which is dragged, or moved by the arrow keys: a splitter between sheet and bench. */
export function BenchEdge({ heightPx, onHeight }: Props) {
  const t = useTranslations('bench');
  /** Where the bench ends, in pixels from the top, while its edge is held. */
  const end = useRef<number | null>(null);
  const put = (next: number) => onHeight(Math.round(Math.max(MIN_PX, Math.min(greatest(), next))));
  const onKeyDown = (event: KeyboardEvent) => {
    const to = {
      ArrowUp: heightPx + STEP_PX,
      ArrowDown: heightPx - STEP_PX,
      Home: MIN_PX,
      End: greatest(),
    }[event.key];
    if (to === undefined) return;
    event.preventDefault();
    put(to);
  };
  const onPointerDown = (event: PointerEvent) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    end.current = event.clientY + heightPx;
  };
  const letGo = () => {
    end.current = null;
  };
  return (
    <div
      role="separator"
      aria-orientation="horizontal"
      aria-label={t('heightBench')}
      aria-valuenow={heightPx}
      aria-valuemin={MIN_PX}
      aria-valuemax={greatest()}
      tabIndex={0}
      className={classes.edge}
      onKeyDown={onKeyDown}
      onPointerDown={onPointerDown}
      onPointerMove={(event) => end.current !== null && put(end.current - event.clientY)}
      onPointerUp={letGo}
      onPointerCancel={letGo}
    />
  );
}
