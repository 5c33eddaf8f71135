import type { Advice } from './advice';

const MAX_ID_LENGTH = 64;

/** The id of a piece of advice, the same while it is about the same rules. */
export const adviceKey = ({ code, rules }: Pick<Advice, 'code' | 'rules'>): string =>
  [code, ...rules]
    .join('_')
    .replace(/[^\w-]/g, '-')
    .slice(0, MAX_ID_LENGTH);
