import { useCallback, useEffect, useRef, type RefObject } from 'react';
import { itemAt } from '../../core/values/item-at';
import { isFormulaInput } from '../../core/values/is-formula-input';
import { coloredReferences } from '../formula/colored-references';
import { surroundingsOf } from '../formula/surroundings';
import { useSession, useSessionState } from '../sheet/use-session';
import { colorOfPerson, TOKENS } from '../theme/tokens';
import type { Geometry, Scroll, Size } from './engine/geometry';
import { selectedArea } from './engine/selection';
import { forgetFits } from './painter/fit-text';
import { paintScene } from './painter/paint-scene';
import { forgetWraps } from './painter/wrap-text';
import type { Preview } from './pointer-drags';

interface Painted {
  readonly canvas: RefObject<HTMLCanvasElement | null>;
  readonly scrollRef: RefObject<Scroll>;
  readonly geometry: Geometry;
  readonly view: Size;
  readonly preview: Preview | null;
}

/**
 * Paints the canvas of the grid whenever what it shows has changed. Returns a function that has it painted in the next
 * frame.
 */
export function useCanvasPaint({ canvas, scrollRef, geometry, view, preview }: Painted): () => void {
  const session = useSession();
  const theme = useSessionState((state) => state.theme);

  const paint = useCallback(() => {
    const context = canvas.current?.getContext('2d', { alpha: false });
    if (!context || view.width === 0) return;
    const { window, frozen, selection: selected, frame: isOpen, editing: typed, others } = session.get();
    const ratio = devicePixelRatio;
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    paintScene(context, {
      geometry: sized(geometry, preview),
      scroll: scrollRef.current,
      view,
      tokens: TOKENS[theme],
      window,
      frozen,
      selected: isOpen ? selectedArea(selected) : null,
      also: selected.also ?? [],
      active: selected.anchor,
      references:
        typed && isFormulaInput(typed.text)
          ? coloredReferences(typed.text, surroundingsOf(isOpen)).map(({ area, color }) => ({
              area,
              color: itemAt(TOKENS[theme].references, color),
            }))
          : [],
      others: others.flatMap(({ name, area }, place) =>
        area ? { area, name, color: colorOfPerson(theme, place) } : [],
      ),
      folds: isOpen?.folds ?? [],
      filling: preview?.kind === 'fill' ? preview.to : null,
      landing: preview?.kind === 'move' ? preview : null,
    });
  }, [session, canvas, scrollRef, geometry, view, theme, preview]);

  const planned = useRef(0);
  const plan = useCallback(() => {
    cancelAnimationFrame(planned.current);
    planned.current = requestAnimationFrame(paint);
  }, [paint]);

  useEffect(() => {
    plan();
    let painted = session.get();
    return session.subscribe(() => {
      const { window, frozen, selection: selected, frame: isOpen, editing: typed, others } = session.get();
      const before = painted;
      painted = session.get();
      // New values are painted in the task that brings them, before anything else is rendered.
      if (window !== before.window) return paint();
      // Events of the bench or the legend alone are not the grid's.
      if (
        others !== before.others ||
        frozen !== before.frozen ||
        selected !== before.selection ||
        isOpen !== before.frame ||
        typed !== before.editing
      )
        plan();
    });
  }, [session, plan, paint]);

  useEffect(() => {
    let gone = false;
    void document.fonts.ready.then(() => {
      if (gone) return;
      forgetFits();
      forgetWraps();
      plan();
    });
    return () => {
      gone = true;
    };
  }, [plan]);

  return plan;
}

/** The sheet as it would be if what is being sized were let go now. */
function sized(geometry: Geometry, preview: Preview | null): Geometry {
  if (preview?.kind === 'width') return geometry.withWidth(preview.column, preview.widthPx);
  return preview?.kind === 'height' ? geometry.withHeight(preview.position, preview.heightPx) : geometry;
}
