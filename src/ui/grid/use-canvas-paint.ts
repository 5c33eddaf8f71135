import { useCallback, useEffect, useRef, type RefObject } from 'react';
import { useTranslations } from 'use-intl';
import { columnLetters } from '../../core/sheet/address';
import type { Texts } from '../../texts/texts';
import { type Theme } from '../../core/looks/first-family';
import { type Scene } from './painter/scene';
import { type SessionState } from '../sheet/session-state';
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
  const t = useTranslations('grid');
  const theme = useSessionState((state) => state.theme);

  const paint = useCallback(() => {
    const context = canvas.current?.getContext('2d', { alpha: false });
    if (!context || view.width === 0) return;
    const ratio = devicePixelRatio;
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    paintScene(
      context,
      sceneOf(session.get(), {
        geometry: sized(geometry, preview),
        scroll: scrollRef.current,
        view,
        theme,
        preview,
        t,
      }),
    );
  }, [session, canvas, scrollRef, geometry, view, theme, preview, t]);

  const planned = useRef(0);
  const plan = useCallback(() => {
    cancelAnimationFrame(planned.current);
    planned.current = requestAnimationFrame(paint);
  }, [paint]);

  useEffect(() => {
    plan();
    let painted = session.get();
    return session.subscribe(() => {
      const before = painted;
      painted = session.get();
      // New values are painted in the task that brings them, before anything else is rendered.
      if (painted.window !== before.window) return paint();
      if (PAINTED.some((name) => painted[name] !== before[name]) || referringText(painted) !== referringText(before))
        plan();
    });
  }, [session, plan, paint]);

  useFonts(plan);
  return plan;
}

/** What of the state is painted: events of the bench or the legend alone are not the grid's. */
const PAINTED = ['others', 'frozen', 'selection', 'frame'] as const satisfies (keyof SessionState)[];

/** The formula that is being typed, whose references are painted; any other text is in its editor alone. */
const referringText = ({ editing }: SessionState): string | null =>
  editing && isFormulaInput(editing.text) ? editing.text : null;

/** Calls `onLoad` once the fonts are there, by which texts are measured again. */
function useFonts(onLoad: () => void): void {
  useEffect(() => {
    let gone = false;
    void document.fonts.ready.then(() => {
      if (gone) return;
      forgetFits();
      forgetWraps();
      onLoad();
    });
    return () => {
      gone = true;
    };
  }, [onLoad]);
}

interface Shown extends Pick<Scene, 'geometry' | 'scroll' | 'view'> {
  readonly theme: Theme;
  readonly preview: Preview | null;
  readonly t: Texts<'grid'>;
}

/** What is painted of a state of the page. */
function sceneOf(state: SessionState, { geometry, scroll, view, theme, preview, t }: Shown): Scene {
  const { window, frozen, selection, frame, others } = state;
  const tokens = TOKENS[theme];
  const formula = referringText(state);
  return {
    geometry,
    scroll,
    view,
    tokens,
    trialHead: window?.trial ? t('trialOf', { column: columnLetters(window.trial.column) }) : '',
    window,
    frozen,
    selected: frame ? selectedArea(selection) : null,
    also: selection.also ?? [],
    active: selection.anchor,
    references: formula
      ? coloredReferences(formula, surroundingsOf(frame)).map(({ area, color }) => ({
          area,
          color: itemAt(tokens.references, color),
        }))
      : [],
    others: others.flatMap(({ name, area }, place) => (area ? { area, name, color: colorOfPerson(theme, place) } : [])),
    folds: frame?.folds ?? [],
    filling: preview?.kind === 'fill' ? preview.to : null,
    landing: preview?.kind === 'move' ? preview : null,
  };
}

/** The sheet as it would be if what is being sized were let go now. */
function sized(geometry: Geometry, preview: Preview | null): Geometry {
  if (preview?.kind === 'width') return geometry.withWidth(preview.column, preview.widthPx);
  return preview?.kind === 'height' ? geometry.withHeight(preview.position, preview.heightPx) : geometry;
}
