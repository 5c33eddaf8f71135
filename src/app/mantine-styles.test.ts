import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { expect, test } from 'vitest';

const LIBRARY = 'node_modules/@mantine/core';
const read = (file: string): string => readFileSync(file, 'utf8');

/** The modules of the library that hold the components which the sources import. */
function usedComponents(): string[] {
  const index = read(join(LIBRARY, 'esm/index.mjs'));
  const names = readdirSync('src', { recursive: true, encoding: 'utf8' })
    .filter((name) => /\.tsx?$/.test(name))
    .flatMap((name) => [...read(join('src', name)).matchAll(/import \{([^}]*)\} from '@mantine\/core'/g)])
    .flatMap(([, list = '']) => list.split(',').map((item) => item.trim()));
  return [...new Set(names)].flatMap((name) => {
    const [, module] = new RegExp(`import \\{[^}]*\\b${name}\\b[^}]*\\} from "(\\./[^"]+)"`).exec(index) ?? [];
    return module === undefined ? [] : [resolve(LIBRARY, 'esm', module)];
  });
}

/** The modules of class names that some modules import, directly or through others. */
function classModules(modules: readonly string[]): string[] {
  const seen = new Set(modules);
  for (const module of seen)
    for (const [, path = ''] of read(module).matchAll(/from "(\.[^"]+)"/g)) seen.add(resolve(dirname(module), path));
  return [...seen].filter((module) => module.endsWith('.module.mjs'));
}

test('the styles of every Mantine component that is used are loaded, each after those that it builds on', () => {
  const loaded = [...read('src/app/mantine-styles.ts').matchAll(/import '(@mantine[^']+)'/g)].map(
    ([, path = '']) => path,
  );
  const css = loaded.map((path) => read(join('node_modules', path))).join('');
  const modules = classModules(usedComponents());
  const missing = modules.flatMap((module) =>
    [...read(module).matchAll(/"(m_[0-9a-f]+)"/g)].map(([, name = '']) => name).filter((name) => !css.includes(name)),
  );
  expect(modules.length).toBeGreaterThan(30);
  expect(missing).toEqual([]);

  const all = read(join(LIBRARY, 'styles.css'));
  const places = loaded.flatMap((path) => {
    const [first] = /\.m_[0-9a-f]+/.exec(read(join('node_modules', path))) ?? [];
    return first === undefined ? [] : [all.indexOf(first)];
  });
  expect(places).toEqual(places.toSorted((a, b) => a - b));
});
