import Joi from 'joi';
import { describe, expect, test } from 'vitest';
import { lookProperties, nestProperties, type Look } from './look';
import { lookSchema } from './look-schema';

const side = (color: string) => ({ style: 'solid' as const, width: 1, color });

describe('properties', () => {
  test('a saved look, with what is said beside it over it', () => {
    const saved = { alarm: { fill: '#111111', bold: true, border: { top: side('#222222') } } };
    const properties = lookProperties(
      { look: 'alarm', bold: false, text: '#333333', border: { top: side('#444444') } },
      saved,
    );
    expect(Object.fromEntries(properties)).toEqual({
      fill: '#111111',
      bold: false,
      text: '#333333',
      'border.top': side('#444444'),
    });
  });

  test('around is all four sides, and a side goes over it', () => {
    const properties = lookProperties({ border: { around: side('#111111'), left: side('#222222') } }, {});
    expect(nestProperties(properties)).toEqual({
      border: { top: side('#111111'), right: side('#111111'), bottom: side('#111111'), left: side('#222222') },
    });
  });

  test('absent is not touched, false is', () => {
    expect([...lookProperties({}, {})]).toEqual([]);
    expect([...lookProperties({ strike: false, hideValue: false }, {})]).toEqual([
      ['strike', false],
      ['hideValue', false],
    ]);
  });
});

describe('what a look may be', () => {
  const wrong = (look: object) => lookSchema(Joi).validate(look, { convert: false }).error?.message;
  const right: readonly Look[] = [
    { fill: '#ffe3a3', text: '#3A2A00', bold: true, italic: false },
    { fill: { color: '#ffe3a3', opacity: 0.5 } },
    { fill: { from: '#000000', to: '#ffffff', angle: 45 } },
    { fill: { pattern: 'dots', color: '#000000', on: '#ffffff' } },
    { border: { around: { style: 'double', width: 4, color: '#000000' } }, number: '#,##0.00', hideValue: true },
  ];
  test.each(right)('%j', (look) => expect(wrong(look)).toBeUndefined());

  test.each([
    [{ fill: 'yellow' }, 'must be a colour such as #ffe3a3'],
    [{ fill: '#fff' }, 'must be a colour such as #ffe3a3'],
    [{ fill: { color: '#ffe3a3', opacity: 2 } }, 'fill.opacity'],
    [{ fill: { from: '#000000' } }, 'fill.to'],
    [{ fill: { pattern: 'stars', color: '#000000' } }, 'fill.pattern'],
    [{ border: { top: { style: 'solid', width: 5, color: '#000000' } } }, 'border.top.width'],
    [{ border: { middle: side('#000000') } }, 'border.middle'],
    [{ size: 14 }, 'size'],
    [{ bold: 'yes' }, 'bold'],
  ])('not %j', (look, words) => expect(wrong(look)).toContain(words));
});
