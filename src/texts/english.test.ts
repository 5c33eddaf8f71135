import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { IntlMessageFormat } from 'intl-messageformat';
import { describe, expect, test } from 'vitest';
import { keysOf } from '../core/values/typed-keys';
import { english } from './english';

/** All sources that say texts, as one. */
const sources = ['src/ui', 'src/app', 'src/server']
  .flatMap((folder) => readdirSync(folder, { recursive: true, encoding: 'utf8' }).map((name) => join(folder, name)))
  .filter((name) => /\.tsx?$/.test(name))
  .map((name) => readFileSync(name, 'utf8'))
  .join('\n');

describe.each(keysOf(english))('the texts of %s', (place) => {
  const texts = Object.entries(english[place]);

  test('are messages that ICU can read', () => {
    for (const [name, text] of texts) expect(() => new IntlMessageFormat(text, 'en'), name).not.toThrow();
  });

  test('are all used, and none is there twice', () => {
    expect(texts.filter(([name]) => !sources.includes(`'${name}'`)).map(([name]) => name)).toEqual([]);
    expect(new Set(texts.map(([, text]) => text)).size).toBe(texts.length);
  });
});
