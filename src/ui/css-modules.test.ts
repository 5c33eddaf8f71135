import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { expect, test } from 'vitest';

const IMPORT = /import (?<name>\w+) from '(?<path>[^']+\.module\.css)'/g;

const sources = readdirSync('src', { recursive: true, encoding: 'utf8' }).map((name) => join('src', name));

/** The classes that a module defines: those that Mantine names are in `:global`. */
function definedIn(module: string): Set<string> {
  const css = readFileSync(module, 'utf8').replaceAll(/\/\*.*?\*\/|:global\([^)]*\)/gs, '');
  return new Set([...css.matchAll(/\.([A-Za-z][\w-]*)(?=[^{};]*\{)/g)].map(([, name = '']) => name));
}

/** The classes that each source takes from each module; `all` where it computes their names. */
const uses = sources
  .filter((file) => /\.tsx?$/.test(file))
  .flatMap((file) => {
    const text = readFileSync(file, 'utf8');
    return [...text.matchAll(IMPORT)].map(({ groups: { name = '', path = '' } = {} }) => ({
      file,
      module: join(dirname(file), path),
      classes: [...text.matchAll(new RegExp(`\\b${name}\\.(\\w+)`, 'g'))].map(([, used = '']) => used),
      all: new RegExp(`\\b${name}\\[`).test(text),
    }));
  });

test('each class that a component uses is in the CSS module that it names', () => {
  const missing = uses.flatMap(({ file, module, classes }) => {
    const defined = definedIn(module);
    return classes.filter((name) => !defined.has(name)).map((name) => `${file}: ${name}`);
  });
  expect(uses.length).toBeGreaterThan(50);
  expect(missing).toEqual([]);
});

test('each class of a CSS module is used', () => {
  const unused = sources
    .filter((file) => file.endsWith('.module.css'))
    .flatMap((module) => {
      const users = uses.filter((use) => use.module === module);
      const used = new Set(users.flatMap(({ classes }) => classes));
      return users.some(({ all }) => all)
        ? []
        : [...definedIn(module)].filter((name) => !used.has(name)).map((name) => `${module}: ${name}`);
    });
  expect(unused).toEqual([]);
});
