import type { BorderSide, Hex, Side } from './look';

/** Ordinary formatting, under all rules. Absent means "as it is without". */
export interface Style {
  readonly fill?: Hex;
  readonly text?: Hex;
  readonly bold?: boolean;
  readonly italic?: boolean;
  readonly underline?: boolean;
  readonly strike?: boolean;
  readonly border?: Readonly<Partial<Record<Side, BorderSide>>>;
  /** A number format (UTS #35 pattern). */
  readonly number?: string;
  readonly align?: 'start' | 'center' | 'end';
  readonly stand?: 'top' | 'middle' | 'bottom';
  readonly wrap?: boolean;
  /** Height of the letters in pixels, 8 to 48. */
  readonly sizePx?: number;
  readonly family?: 'plain' | 'serif' | 'fixed';
}

/**
 * Several styles over one another, the last on top: each property, and each side of the border, from the topmost that
 * has it.
 */
export function mergeStyles(styles: readonly (Style | undefined)[]): Style | undefined {
  const given = styles.filter((style) => style !== undefined);
  if (given.length < 2) return given[0];
  const border = Object.assign({}, ...given.map((style) => style.border ?? {})) as NonNullable<Style['border']>;
  return { ...(Object.assign({}, ...given) as Style), ...(Object.keys(border).length ? { border } : {}) };
}
