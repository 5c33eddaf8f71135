import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from 'vitest';

test('statements are tagged templates, whose values are parameters: none is put together of texts but those of migrations and of linked tables', () => {
  const files = readdirSync('src', { recursive: true, encoding: 'utf8' }).filter(
    (name) => /\.tsx?$/.test(name) && !/\.test\.tsx?$/.test(name),
  );
  const put = files.filter((name) => /\.unsafe\(|\b(sql|tx)\(['"`]/.test(readFileSync(join('src', name), 'utf8')));
  expect(files.length).toBeGreaterThan(500);
  // Rules over linked tables come with their values apart, as parameters.
  expect(put.sort()).toEqual(['linked/run-statement.ts', 'server/migrate.ts']);
});
