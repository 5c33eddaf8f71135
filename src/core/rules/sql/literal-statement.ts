import type { Sql } from 'sql-template-tag';

/** A value as SQL writes it: for statements that can have no parameters, as those of views. */
export function literal(value: unknown): string {
  if (typeof value === 'number' || typeof value === 'boolean') return `'${value}'`;
  // Other characters than those of print are written by their code points.
  const text = String(value).replaceAll('\\', '\\\\').replaceAll("'", "''");
  const escaped = text.replace(/[\p{C}\p{M}\p{Zl}\p{Zp}]|[^\S ]/gu, codePoint);
  return escaped.includes('\\') ? `E'${escaped}'` : `'${escaped}'`;
}

function codePoint(character: string): string {
  const hex = (character.codePointAt(0) ?? 0).toString(16);
  return hex.length > 4 ? `\\U${hex.padStart(8, '0')}` : `\\u${hex.padStart(4, '0')}`;
}

/** A statement with its values written into it. */
export const literalStatement = ({ strings, values }: Pick<Sql, 'strings' | 'values'>): string =>
  strings.map((part, at) => (at < values.length ? part + literal(values[at]) : part)).join('');
