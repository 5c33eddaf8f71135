import { beforeEach, describe, expect, test, vi } from 'vitest';
import type { Look } from '../../../core/looks/look';
import type { Style } from '../../../core/looks/style';
import { lookProperties } from '../../../core/looks/look';
import type { SheetWindow } from '../../../protocol/sheet-view';
import { Geometry, type GridLayout, GUTTER_PX, HEAD_PX, ROW_PX, TRIAL_PX } from '../engine/geometry';
import { forgetFits, fitText } from './fit-text';
import { paintScene } from './paint-scene';
import { TOKENS } from '../../theme/tokens';

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
    this.path.push(x, y);
  }
  lineTo(x: number, y: number): void {
    this.path.push(x, y);
  }
  stroke(): void {
    this.note('line', this.strokeStyle, this.path);
  }
  measureText = (text: string) => ({ width: Array.from(text).length * 6 });
  createLinearGradient = (...at: number[]) => ({
    addColorStop() {},
    toString: () => `gradient ${at.map(Math.round).join(' ')}`,
  });
  save(): void {}
  restore(): void {}
  beginPath(): void {
    this.path = [];
  }
  rect(): void {}
  clip(): void {}
  setLineDash(): void {}
  translate(): void {}
  scale(): void {}
}

const tokens = TOKENS.light;
const LAYOUT = { widths: [100, 100], rowCount: 4, frozenRows: 1 };

interface More {
  readonly spotlit?: number[];
  readonly open?: number[];
  readonly scrollTop?: number;
  readonly roles?: SheetWindow['roles'];
  /** Ordinary formatting for the cells that have looks. */
  readonly styles?: readonly Style[];
  readonly layout?: Partial<GridLayout>;
  readonly trial?: SheetWindow['trial'];
}

/** Paints a header and three records of two fields; `looks` for A2 and B2. */
function painted(texts: readonly string[], looks: readonly Look[] = [], more: More = {}): Stroke[] {
  const lookTable = [
    { properties: {}, rules: [], style: {} },
    ...looks.map((look, at) => ({
      properties: Object.fromEntries(lookProperties(look, {})),
      rules: ['R'],
      style: more.styles?.[at] ?? {},
    })),
  ];
  const body: SheetWindow = {
    area: { left: 0, top: 1, right: 1, bottom: 3 },
    rows: [1, 2, 3],
    texts: [...texts, ...Array<string>(6).fill('')].slice(0, 6),
    looks: Uint16Array.from([1, 2, 0, 0, 0, 0], (look) => (look <= looks.length ? look : 0)),
    lookTable,
    banded: new Uint8Array(0),
    trial: more.trial ?? null,
    levels: new Uint8Array(0),
    bars: new Float32Array(looks.flatMap(({ bar }) => (bar ? [bar.start, bar.end, bar.axis ?? NaN] : [NaN, NaN, NaN]))),
    aligns: Uint8Array.from([0, 1, 2, 0, 0, 0]),
    spotlit: Uint8Array.from(more.spotlit ?? []),
    open: Uint8Array.from(more.open ?? []),
    roles: more.roles ?? ['record', 'record', 'record'],
  };
  const frozen: SheetWindow = {
    ...body,
    area: { left: 0, top: 0, right: 1, bottom: 0 },
    rows: [0],
    texts: ['One', 'Two'],
    looks: new Uint16Array(2),
    bars: new Float32Array(0),
    aligns: new Uint8Array(2),
    spotlit: new Uint8Array(0),
    open: new Uint8Array(0),
    roles: ['header'],
    trial: null,
  };
  const notebook = new Notebook();
  const scroll = { left: 0, top: more.scrollTop ?? 0 };
  const selected = { left: 1, right: 1, top: 3, bottom: 3 };
  paintScene(notebook as unknown as CanvasRenderingContext2D, {
    geometry: new Geometry({ ...LAYOUT, ...more.layout }),
    scroll,
    view: { width: 400, height: 300 },
    tokens,
    trialHead: more.trial ? 'trial of B' : '',
    window: body,
    frozen,
    selected,
    also: [],
    active: { column: 1, position: 3 },
    references: [],
    others: [],
    folds: [],
    filling: null,
    landing: null,
  });
  return notebook.strokes;
}

const boxOf = (column: number, position: number) => [
  GUTTER_PX + column * 100,
  HEAD_PX + position * ROW_PX,
  100,
  ROW_PX,
];
const textOf = (strokes: readonly Stroke[], text: string) =>
  strokes.find((stroke) => stroke.what === 'text' && stroke.at[0] === text);

beforeEach(forgetFits);

test('letters, numbers, headers and values stand in their places', () => {
  const strokes = painted(['left', '5', 'TRUE']);
  expect(textOf(strokes, 'A')!.at).toEqual(['A', GUTTER_PX + 50, HEAD_PX / 2 + 0.5]);
  expect(textOf(strokes, '4')!.align).toBe('right');
  expect(textOf(strokes, 'One')!.font).toContain('650');
  expect(textOf(strokes, 'left')).toMatchObject({
    align: 'left',
    at: ['left', GUTTER_PX + 7, HEAD_PX + ROW_PX * 1.5 + 0.5],
    style: tokens.ink,
  });
  expect(textOf(strokes, '5')).toMatchObject({
    align: 'right',
    at: ['5', GUTTER_PX + 193, HEAD_PX + ROW_PX * 1.5 + 0.5],
  });
  expect(textOf(strokes, 'TRUE')).toMatchObject({ align: 'center' });
});

describe('looks', () => {
  test('a fill under its text, in bold italics, underlined and struck through', () => {
    const strokes = painted(
      ['abc'],
      [{ fill: '#f7d3c8', text: '#77200d', bold: true, italic: true, underline: true, strike: true }],
    );
    expect(strokes.find(({ style }) => style === '#f7d3c8')!.at).toEqual(boxOf(0, 1));
    expect(textOf(strokes, 'abc')).toMatchObject({
      style: '#77200d',
      font: expect.stringMatching(/^italic 650 13px/) as string,
    });
    // Two lines as wide as three characters.
    expect(
      strokes.filter(({ what, style, at }) => what === 'fill' && style === '#77200d' && at[2] === 18 && at[3] === 1),
    ).toHaveLength(2);
  });

  test('fills that are see-through, and gradients from edge to edge', () => {
    const strokes = painted(
      ['a', 'b'],
      [{ fill: { color: '#ff0000', opacity: 0.5 } }, { fill: { from: '#000000', to: '#ffffff' } }],
    );
    expect(strokes.some(({ style }) => style === 'rgba(255, 0, 0, 0.5)')).toBe(true);
    expect(strokes.map(({ style }) => String(style))).toContain(`gradient ${GUTTER_PX + 100} 63 ${GUTTER_PX + 200} 63`);
  });

  test('borders lie within their cell, over the lines of the grid', () => {
    const strokes = painted(
      ['a'],
      [
        {
          border: {
            around: { style: 'solid', width: 2, color: '#b4411f' },
            top: { style: 'double', width: 3, color: '#00ff00' },
          },
        },
      ],
    );
    const [left, top, width, height] = boxOf(0, 1) as [number, number, number, number];
    const lines = strokes.filter(({ what }) => what === 'line');
    // Lines that look alike are one stroke, of two points each: two of the double border, three of the other.
    const pointsOf = (color: string) => lines.filter(({ style }) => style === color).map(({ at }) => at.length / 2);
    expect([pointsOf('#00ff00'), pointsOf('#b4411f')]).toEqual([[4], [6]]);
    for (const { at } of lines)
      for (let point = 0; point < at.length; point += 2) {
        expect(at[point]).toBeGreaterThanOrEqual(left);
        expect(at[point]).toBeLessThanOrEqual(left + width);
        expect(at[point + 1]).toBeGreaterThanOrEqual(top);
        expect(at[point + 1]).toBeLessThanOrEqual(top + height);
      }
    const grid = strokes.findIndex(({ style }) => style === tokens.hairline);
    expect(strokes.findIndex(({ what, style }) => what === 'line' && style === '#b4411f')).toBeGreaterThan(grid);
  });

  test('under a spotlight what is not lit is faded', () => {
    const strokes = painted(['lit', 'dim'], [{ fill: '#111111' }, { fill: '#222222' }], {
      spotlit: [1, 0, 0, 0, 0, 0],
    });
    expect([textOf(strokes, 'lit')!.alpha, textOf(strokes, 'dim')!.alpha, textOf(strokes, 'One')!.alpha]).toEqual([
      1, 0.22, 1,
    ]);
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
  expect(fitText(context, 'short', { font: '13px test', roomPx: 30 })).toBe('short');
  expect(fitText(context, 'too long for it', { font: '13px test', roomPx: 60 })).toBe('too long …');
  expect(fitText(context, '🌊🌊🌊🌊', { font: '13px test', roomPx: 18 })).toBe('🌊🌊…');
  expect(fitText(context, 'x', { font: '13px test', roomPx: 2 })).toBe('');
});

describe('ordinary formatting', () => {
  test('lies under what rules set, property by property', () => {
    const style: Style = { fill: '#d3e4f6', text: '#143f6b', italic: true };
    const strokes = painted(['a', 'b'], [{ fill: '#f7d3c8', bold: true }, {}], { styles: [style, style] });
    expect(textOf(strokes, 'a')).toMatchObject({
      style: '#143f6b',
      font: expect.stringMatching(/^italic 650/) as string,
    });
    expect(textOf(strokes, 'b')).toMatchObject({
      style: '#143f6b',
      font: expect.stringMatching(/^italic 420/) as string,
    });
    const fills = strokes.map(({ style: fill }) => fill).filter((fill) => fill === '#d3e4f6' || fill === '#f7d3c8');
    expect(fills).toEqual(['#d3e4f6', '#f7d3c8', '#d3e4f6']);
  });

  test('on a fill without a text colour the ink is the one that reads', () => {
    const strokes = painted(['dark', 'light'], [{}, {}], { styles: [{ fill: '#2c3350' }, { fill: '#fde5ac' }] });
    expect([textOf(strokes, 'dark')!.style, textOf(strokes, 'light')!.style]).toEqual(['#ffffff', '#111111']);
  });

  test('places text across and up and down, in other letters, in lines', () => {
    const tall = { heights: [[1, 1, 80] as const] };
    const across = painted(['a', 'b'], [{}, {}], {
      styles: [
        { align: 'end', stand: 'top' },
        { align: 'center', stand: 'bottom', sizePx: 20, family: 'serif' },
      ],
      layout: tall,
    });
    const top = HEAD_PX + ROW_PX;
    expect(textOf(across, 'a')).toMatchObject({ align: 'right', at: ['a', GUTTER_PX + 93, top + 3 + 9 + 0.5] });
    expect(textOf(across, 'b')).toMatchObject({
      align: 'center',
      at: ['b', GUTTER_PX + 150, top + 80 - 3 - 13.5 + 0.5],
      font: expect.stringContaining('20px') as string,
    });
    expect(textOf(across, 'b')!.font).toContain('Newsreader');
    // Six pixels a letter: fourteen to a line of 86.
    const lines = painted(['one two three four fiveandmoreletters'], [{}], { styles: [{ wrap: true }], layout: tall });
    expect(
      lines
        .filter(({ what, at }) => what === 'text' && at[1] === GUTTER_PX + 7 && (at[2] as number) > top)
        .map(({ at }) => at[0]),
    ).toEqual(['one two three', 'four', 'fiveandmorelet', 'ters']);
  });

  test('a row out of view and a field out of view are not painted, and those after them move up', () => {
    const strokes = painted(['a', 'b', 'c', 'd'], [], { layout: { heights: [[1, 1, 0] as const], widths: [0, 100] } });
    expect(textOf(strokes, 'a')).toBeUndefined();
    expect(textOf(strokes, 'c')).toBeUndefined();
    expect(textOf(strokes, 'd')!.at[2]).toBe(HEAD_PX + ROW_PX * 1.5 + 0.5);
    expect(textOf(strokes, 'A')).toBeUndefined();
  });

  test('merged cells show the first over the place of all', () => {
    const merged = { left: 0, right: 1, top: 1, bottom: 2 };
    const strokes = painted(['first', 'hidden', 'hidden too'], [{ fill: '#f7d3c8' }], {
      layout: { merges: [merged] },
      styles: [{ align: 'center' }],
    });
    expect(textOf(strokes, 'first')!.at).toEqual(['first', GUTTER_PX + 100, HEAD_PX + ROW_PX * 2 + 0.5]);
    expect(textOf(strokes, 'hidden')).toBeUndefined();
    expect(strokes.some(({ style, at }) => style === '#f7d3c8' && at[2] === 199 && at[3] === ROW_PX * 2 - 1)).toBe(
      true,
    );
  });

  test('merged cells that begin among fields that stay in view go on beside them', () => {
    const merged = { left: 0, right: 1, top: 1, bottom: 1 };
    const strokes = painted(['long title'], [], { layout: { merges: [merged], frozenColumns: 1 } });
    const shown = strokes.filter(({ what, at }) => what === 'text' && at[0] === 'long title');
    // Once in each part of the view, at the same place.
    expect(shown.map(({ at }) => at)).toEqual([shown[0]!.at, shown[0]!.at]);
  });

  test('an icon stands before its text, drawn in the tone of what it says', () => {
    vi.stubGlobal('Path2D', class {});
    const [plain, marked] = [painted(['late']), painted(['late'], [{ icon: { set: 'verdict3', index: 0 } }])];
    expect(marked.filter(({ what, style }) => what === 'line' && style === tokens.tones.bad)).toHaveLength(1);
    expect(Number(textOf(marked, 'late')!.at[1]) - Number(textOf(plain, 'late')!.at[1])).toBeGreaterThan(15);
    vi.unstubAllGlobals();
  });

  test('a row of totals stands out from its records', () => {
    const strokes = painted(['', '', '', '', '5.4'], [], { roles: ['record', 'record', 'total'] });
    expect(textOf(strokes, '5.4')!.font).toContain('650');
    expect(strokes.some(({ style, at }) => style === tokens.head && at[1] === boxOf(0, 3)[1])).toBe(true);
  });

  test('the trial column stands between the row numbers and the cells; where the record matches it is outlined, an error looks different', () => {
    const trial = [
      { text: 'TRUE', verdict: 'meets' as const },
      { text: '#DIV/0!', verdict: 'fails' as const },
      { text: 'FALSE', verdict: 'does not meet' as const },
    ];
    const strokes = painted(['left'], [], { trial: { column: 1, cells: trial }, layout: { trialPx: TRIAL_PX } });
    const at = trial.map(({ text }) => textOf(strokes, text)!);
    expect(at.map(({ at: [, x] }) => x)).toEqual([GUTTER_PX + 8, GUTTER_PX + 8, GUTTER_PX + 8]);
    expect(at.map(({ style }) => style)).toEqual([tokens.ink, tokens.error, tokens.inkSecond]);
    expect(textOf(strokes, 'trial of B')).toBeDefined();
    expect(textOf(strokes, 'left')!.at[1]).toBe(GUTTER_PX + TRIAL_PX + 7);
    expect(
      strokes.filter(({ style, at: [x] }) => style === tokens.marigold && x === GUTTER_PX).map(({ at: [, y] }) => y),
    ).toEqual([HEAD_PX + ROW_PX + 4]);
    expect(textOf(painted(['left']), 'trial of B')).toBeUndefined();
  });

  test('a bar lies across its cell from where it begins to where it ends', () => {
    const bar = { start: 0, end: 0.5, axis: 0, color: '#7fb59a', style: 'solid' as const };
    const strokes = painted(['5'], [{ bar }]);
    const bars = strokes.filter(({ style }) => style === '#7fb59a');
    expect(bars.map(({ at }) => at.map(Number))).toEqual([
      [GUTTER_PX + 3, HEAD_PX + ROW_PX + 4, 46.5, ROW_PX - 9],
      [GUTTER_PX + 3, HEAD_PX + ROW_PX + 2, 1, ROW_PX - 5],
    ]);
  });
});
