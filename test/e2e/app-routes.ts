import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

/** A route of the app, as its file declares it. */
export interface AppRoute {
  /** The method and the path, with `ID`, `1` and `x` for what varies. */
  readonly route: string;
  /**
   * Whom it is for: those who have access to a sheet, those who have an account as well, those with an account,
   * anybody, or programs with a token.
   */
  readonly kind: 'sheetRoute' | 'sheetPersonRoute' | 'personRoute' | 'openRoute' | 'program';
  /** What the caller must be allowed to do with the sheet; empty where it is about none. */
  readonly permit: string;
}

const METHODS =
  /export (?:async function|function|const) ([A-Z]+)\b(?: = (?:quick\(\s*'[^']*',\s*)?(\w+Route)(?:<[^>]*>)?\(\s*\{([^]*?)\})?/g;

/** The routes of the app. Throws where one does not say whom it is for. */
export function routesOfTheApp(): AppRoute[] {
  return readdirSync('src/app/api', { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('route.ts'))
    .flatMap((file) => {
      const path = `/api/${file.replace(/\/?route\.ts$/, '')}`
        .replace('[id]', 'ID')
        .replace('[sequence]', '1')
        .replaceAll(/\[\w+\]/g, 'x');
      const text = readFileSync(join('src/app/api', file), 'utf8');
      return [...text.matchAll(METHODS)].map(([, method, declared, needs = '']): AppRoute => {
        const route = `${method} ${path}`;
        const kind = declared ?? (text.includes('answerProgram') ? 'program' : undefined);
        if (!isKind(kind)) throw new Error(`${route} does not declare whom it is for`);
        return { route, kind, permit: /permit: '(\w+)'/.exec(needs)?.[1] ?? '' };
      });
    });
}

const isKind = (kind: string | undefined): kind is AppRoute['kind'] =>
  ['sheetRoute', 'sheetPersonRoute', 'personRoute', 'openRoute', 'program'].includes(kind ?? '');

/** The pages of the app, with `ID` and `x` for what varies. */
export const pagesOfTheApp = (): string[] =>
  readdirSync('src/app', { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('page.tsx'))
    .map((file) => `/${file.replace(/\/?page\.tsx$/, '')}`.replace('[id]', 'ID').replaceAll(/\[\w+\]/g, 'x'));
