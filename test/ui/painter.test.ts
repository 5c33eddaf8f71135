import { beforeEach, describe, expect, test } from 'vitest';
import type { Look } from '../../src/core/looks/look';
import { lookProperties } from '../../src/core/looks/look';
import type { SheetWindow } from '../../src/protocol/engine-messages';
import { Geometry, GUTTER_PX, HEAD_PX, ROW_PX } from '../../src/ui/grid/engine/geometry';
import { forgetFits, fitText } from '../../src/ui/grid/painter/fit-text';
import { paintScene } from '../../src/ui/grid/painter/paint-scene';
import { TOKENS } from '../../src/ui/theme/tokens';

interface Stroke {
  readonly what: 'fill' | 'text' | 'line' | 'frame';
  readonly style: string;
  readonly alpha: number;
  readonly font: string;
  readonly align: string;
  readonly at: readonly (number | string)[];
}

/** Writes down what is painted instead of painting it. Each character is six pixels wide. */
class Notebook {
  readonly strokes: Stroke[] = [];
  fillStyle = '';
  strokeStyle = '';
  globalAlpha = 1;
  lineWidth = 1;
  font = '';
  textAlign = '';
  textBaseline = '';
  private path: number[] = [];
  private note(what: Stroke['what'], style: string, at: readonly (number | string)[]): void {
    this.strokes.push({ what, style, alpha: this.globalAlpha, font: this.font, align: this.textAlign, at });
  }
  fillRect(...at: number[]): void {
    this.note('fill', this.fillStyle, at);
  }
  strokeRect(...at: number[]): void {
    this.note('frame', this.strokeStyle, at);
  }
  fillText(text: string, x: number, y: number): void {
    this.note('text', this.fillStyle, [text, x, y]);
  }
  moveTo(x: number, y: number): void {
    this.path = [x, y];
  }
  lineTo(x: number, y: number): void {
    this.path.push(x, y);
  }
  stroke(): void {
    this.note('line', this.strokeStyle, this.path);
  }
  measureText = (text: string) => ({ width: Array.from(text).length * 6 });
  createLinearGradient = (...at: number[]) => ({ addColorStop() {}, toString: () => `gradient ${at.map(Math.round).join(' ')}` });
  save(): void {}
  restore(): void {}
  beginPath(): void {}
  rect(): void {}
  clip(): void {}
  setLineDash(): void {}
}

const tokens = TOKENS.light;
const geometry = new Geometry([100, 100], 4, 1);

/** Paints a header and three records of two fields; `looks` for A2 and B2. */
function painted(texts: readonly string[], looks: readonly Look[] = [], more: { spotlit?: number[]; scrollTop?: number } = {}): Stroke[] {
  const lookTable = [
    { properties: {}, rules: [] },
    ...looks.map((look) => ({ properties: Object.fromEntries(lookProperties(look, {})), rules: ['R'] })),
  ];
  const body: SheetWindow = {
    area: { left: 0, top: 1, right: 1, bottom: 3 },
    texts: [...texts, ...Array<string>(6).fill('')].slice(0, 6),
    looks: Uint16Array.from([1, 2, 0, 0, 0, 0], (look) => (look <= looks.length ? look : 0)),
    lookTable,
    aligns: Uint8Array.from([0, 1, 2, 0, 0, 0]),
    spotlit: Uint8Array.from(more.spotlit ?? []),
    roles: ['record', 'record', 'record'],
  };
  const frozen: SheetWindow = {
    ...body,
    area: { left: 0, top: 0, right: 1, bottom: 0 },
    texts: ['One', 'Two'],
    looks: new Uint16Array(2),
    aligns: new Uint8Array(2),
    spotlit: new Uint8Array(0),
    roles: ['header'],
  };
  const notebook = new Notebook();
  const scroll = { left: 0, top: more.scrollTop ?? 0 };
  const selected = { left: 1, right: 1, top: 3, bottom: 3 };
  paintScene(notebook as unknown as CanvasRenderingContext2D, {
    geometry,
    scroll,
    view: { width: 400, height: 300 },
    tokens,
    window: body,
    frozen,
    selected,
    active: { column: 1, position: 3 },
  });
  return notebook.strokes;
}

const boxOf = (column: number, position: number) => [GUTTER_PX + column * 100, HEAD_PX + position * ROW_PX, 100, ROW_PX];
const textOf = (strokes: readonly Stroke[], text: string) => strokes.find((stroke) => stroke.what === 'text' && stroke.at[0] === text);

beforeEach(forgetFits);

test('letters, numbers, headers and values stand in their places', () => {
  const strokes = painted(['left', '5', 'TRUE']);
  expect(textOf(strokes, 'A')!.at).toEqual(['A', GUTTER_PX + 50, HEAD_PX / 2 + 0.5]);
  expect(textOf(strokes, '4')!.align).toBe('right');
  expect(textOf(strokes, 'One')!.font).toContain('650');
  expect(textOf(strokes, 'left')).toMatchObject({ align: 'left', at: ['left', GUTTER_PX + 7, HEAD_PX + ROW_PX * 1.5 + 0.5], style: tokens.ink });
  expect(textOf(strokes, '5')).toMatchObject({ align: 'right', at: ['5', GUTTER_PX + 193, HEAD_PX + ROW_PX * 1.5 + 0.5] });
  expect(textOf(strokes, 'TRUE')).toMatchObject({ align: 'center' });
});

describe('looks', () => {
  test('a fill under its text, in bold italics, underlined and struck through', () => {
    const strokes = painted(['abc'], [{ fill: '#f7d3c8', text: '#77200d', bold: true, italic: true, underline: true, strike: true }]);
    expect(strokes.find(({ style }) => style === '#f7d3c8')!.at).toEqual(boxOf(0, 1));
    expect(textOf(strokes, 'abc')).toMatchObject({ style: '#77200d', font: expect.stringMatching(/^italic 650 13px/) as string });
    // Two lines as wide as three characters.
    expect(strokes.filter(({ what, style, at }) => what === 'fill' && style === '#77200d' && at[2] === 18 && at[3] === 1)).toHaveLength(2);
  });

  test('fills that are see-through, and gradients from edge to edge', () => {
    const strokes = painted(['a', 'b'], [{ fill: { color: '#ff0000', opacity: 0.5 } }, { fill: { from: '#000000', to: '#ffffff' } }]);
    expect(strokes.some(({ style }) => style === 'rgba(255, 0, 0, 0.5)')).toBe(true);
    expect(strokes.map(({ style }) => String(style))).toContain(`gradient ${GUTTER_PX + 100} 63 ${GUTTER_PX + 200} 63`);
  });

  test('borders lie within their cell, over the lines of the grid', () => {
    const strokes = painted(
      ['a'],
      [{ border: { around: { style: 'solid', width: 2, color: '#b4411f' }, top: { style: 'double', width: 3, color: '#00ff00' } } }],
    );
    const [left, top, width, height] = boxOf(0, 1) as [number, number, number, number];
    const lines = strokes.filter(({ what }) => what === 'line');
    expect(lines.filter(({ style }) => style === '#00ff00')).toHaveLength(2);
    expect(lines.filter(({ style }) => style === '#b4411f')).toHaveLength(3);
    for (const { at } of lines)
      for (let point = 0; point < at.length; point += 2) {
        expect(at[point]).toBeGreaterThanOrEqual(left);
        expect(at[point]).toBeLessThan(left + width);
        expect(at[point + 1]).toBeGreaterThanOrEqual(top);
        expect(at[point + 1]).toBeLessThan(top + height);
      }
    const grid = strokes.findIndex(({ style }) => style === tokens.hairline);
    expect(strokes.findIndex(({ what, style }) => what === 'line' && style === '#b4411f')).toBeGreaterThan(grid);
  });

  test('under a spotlight what is not lit is faded', () => {
    const strokes = painted(['lit', 'dim'], [{ fill: '#111111' }, { fill: '#222222' }], { spotlit: [1, 0, 0, 0, 0, 0] });
    expect([textOf(strokes, 'lit')!.alpha, textOf(strokes, 'dim')!.alpha, textOf(strokes, 'One')!.alpha]).toEqual([1, 0.22, 1]);
    expect(strokes.find(({ style }) => style === '#222222')!.alpha).toBe(0.22);
  });
});

test('the header stays where it is while records scroll beneath it', () => {
  const strokes = painted(['a', 'b', 'c'], [], { scrollTop: ROW_PX });
  expect(textOf(strokes, 'One')!.at[2]).toBe(HEAD_PX + ROW_PX / 2 + 0.5);
  expect(textOf(strokes, 'c')!.at[2]).toBe(HEAD_PX + ROW_PX + ROW_PX / 2 + 0.5);
});

test('the selection is outlined where it lies', () => {
  expect(painted([]).find(({ what, style }) => what === 'frame' && style === tokens.selection)!.at).toEqual([
    GUTTER_PX + 100,
    HEAD_PX + 3 * ROW_PX,
    99,
    ROW_PX - 1,
  ]);
});

test('a text that is too wide ends in an ellipsis, never in half a character', () => {
  const context = new Notebook() as unknown as CanvasRenderingContext2D;
  expect(fitText(context, 'short', 30)).toBe('short');
  expect(fitText(context, 'too long for it', 60)).toBe('too long …');
  expect(fitText(context, '🌊🌊🌊🌊', 18)).toBe('🌊🌊…');
  expect(fitText(context, 'x', 2)).toBe('');
});
