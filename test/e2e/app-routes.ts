import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

/** The methods that the app answers to, as its files say, with `ID` and `x` for what varies. */
export function routesOfTheApp(): string[] {
  return readdirSync('src/app/api', { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('route.ts'))
    .flatMap((file) => {
      const path = `/api/${file.replace(/\/?route\.ts$/, '')}`
        .replace('[id]', 'ID')
        .replace('[sequence]', '1')
        .replaceAll(/\[\w+\]/g, 'x');
      const text = readFileSync(join('src/app/api', file), 'utf8');
      return [...text.matchAll(/export (?:async function|function|const) ([A-Z]+)\b/g)].map(
        ([, method]) => `${method} ${path}`,
      );
    });
}

/** The pages of the app, with `ID` and `x` for what varies. */
export const pagesOfTheApp = (): string[] =>
  readdirSync('src/app', { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('page.tsx'))
    .map((file) => `/${file.replace(/\/?page\.tsx$/, '')}`.replace('[id]', 'ID').replaceAll(/\[\w+\]/g, 'x'));
