import fc from 'fast-check';
import { expect, test } from 'vitest';
import { fromXstring, toXstring } from './xstring';

// ISO/IEC 29500-1, 22.9.2.19: _xHHHH_ is the character of that code; an underscore before such a code is _x005F_.
test.each([
  ['a_x000D_b', 'a\rb'],
  ['_x0009_', '\t'],
  ['_x005F_x000D_', '_x000D_'],
  ['plain_text_x', 'plain_text_x'],
])('%s', (held, text) => {
  expect(fromXstring(held)).toBe(text);
});

test('every text comes back, and nothing is written that XML 1.0 has no sign for', () => {
  fc.assert(
    fc.property(
      fc.string({
        unit: fc.constantFrom('_', 'x', '0', 'A', 'a', '\u0001', '\r', '\n', 'é', '\u{1f41f}'),
        maxLength: 30,
      }),
      (text) => {
        const held = toXstring(text);
        expect(fromXstring(held)).toBe(text);
        // oxlint-disable-next-line no-control-regex -- these are what XML cannot write
        expect(held).not.toMatch(/[\u0000-\u0008\u000b\u000c\r\u000e-\u001f]/);
      },
    ),
  );
});
