import { expect, test } from 'vitest';
import { cssOf, type ShownProperties } from './css-of';

// The properties of CSS (level 2.2, backgrounds and borders 3, images 4) that say each.
test.each<[ShownProperties, string]>([
  [{}, ''],
  [{ fill: '#f7d3c8', text: '#77200d', bold: true }, 'background-color:#f7d3c8;color:#77200d;font-weight:bold'],
  [{ bold: false, italic: true }, 'font-style:italic'],
  [{ underline: true, strike: true }, 'text-decoration:underline line-through'],
  [
    { align: 'end', stand: 'top', wrap: true, sizePx: 20 },
    'text-align:end;vertical-align:top;white-space:pre-wrap;font-size:20px',
  ],
  [{ fill: { from: '#ffffff', to: '#2f7f86', angle: 90 } }, 'background:linear-gradient(180deg, #ffffff, #2f7f86)'],
  [{ fill: { color: '#2f7f86', opacity: 0.25 } }, 'background:color-mix(in srgb, #2f7f86 25%, transparent)'],
  [{ 'border.left': { style: 'dashed', width: 2, color: '#806040' } }, 'border-left:2px dashed #806040'],
  [{ border: { top: { style: 'solid', width: 1, color: '#000000' } } }, 'border-top:1px solid #000000'],
])('%j', (shown, css) => {
  expect(cssOf(shown)).toBe(css);
});

test('a bar is painted over the fill, from its lesser end', () => {
  const css = cssOf({ fill: '#ffffff', bar: { start: 0.75, end: 0.25, axis: null, color: '#5b7fa6', style: 'solid' } });
  expect(css).toBe('background:linear-gradient(90deg, transparent 25%, #5b7fa6 25% 75%, transparent 75%),#ffffff');
});
