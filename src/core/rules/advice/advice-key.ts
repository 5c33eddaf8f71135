import type { Advice } from './advice';

const MAX_ID_LENGTH = 64;

/** What a piece of advice goes by as long as it is about the same rules: fit to be an id. */
export const adviceKey = ({ code, rules }: Pick<Advice, 'code' | 'rules'>): string =>
  [code, ...rules]
    .join('_')
    .replace(/[^\w-]/g, '-')
    .slice(0, MAX_ID_LENGTH);
