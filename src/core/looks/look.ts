import type { IconSet } from './icon-sets';

export type Hex = string;

export type Fill =
  | Hex
  | { readonly color: Hex; readonly opacity: number }
  | { readonly from: Hex; readonly to: Hex; readonly angle?: number }
  | { readonly pattern: 'dots' | 'lines' | 'cross' | 'diagonal'; readonly color: Hex; readonly on?: Hex };

export interface BorderSide {
  readonly style: 'solid' | 'dashed' | 'dotted' | 'double';
  /** 1 to 4 pixels. */
  readonly width: number;
  readonly color: Hex;
}

export const SIDES = ['top', 'right', 'bottom', 'left'] as const;
export type Side = (typeof SIDES)[number];

/** An icon of one of the sets (see icon-sets.ts), counted from 0. */
export interface LookIcon {
  readonly set: IconSet;
  readonly index: number;
}

/**
 * A bar across a cell, in fractions of its width from the left; `axis` is where it begins, null where none is drawn.
 */
export interface LookBar {
  readonly start: number;
  readonly end: number;
  readonly axis: number | null;
  readonly color: Hex;
  readonly style: 'solid' | 'gradient';
}

/** The look of a rule. Absent means "not touched". */
export interface Look {
  /** A saved look that this one starts from. */
  readonly look?: string;
  readonly fill?: Fill;
  readonly text?: Hex;
  readonly bold?: boolean;
  readonly italic?: boolean;
  readonly underline?: boolean;
  readonly strike?: boolean;
  readonly border?: Readonly<Partial<Record<Side | 'around', BorderSide>>>;
  /** A number format (UTS #35 pattern). */
  readonly number?: string;
  readonly icon?: LookIcon;
  readonly bar?: LookBar;
  readonly hideValue?: boolean;
}

/** A look without a reference to a saved one, and with `around` spread over the four sides. */
export type PlainLook = Omit<Look, 'look'>;

/** A look taken apart into the properties that rules win one by one: each border side is its own. */
export type LookProperty = Exclude<keyof PlainLook, 'border'> | `border.${Side}`;
export type LookProperties = ReadonlyMap<LookProperty, unknown>;
/** What the value of each property is. */
export type LookValues = Required<Omit<PlainLook, 'border'>> & Readonly<Record<`border.${Side}`, BorderSide>>;

/** The value of one property, or undefined where the look does not set it. */
export const lookValue = <K extends LookProperty>(properties: LookProperties, name: K): LookValues[K] | undefined =>
  properties.get(name) as LookValues[K] | undefined; // a property is set to its own type of value, see lookProperties

const PLAIN = ['fill', 'text', 'bold', 'italic', 'underline', 'strike', 'number', 'icon', 'bar', 'hideValue'] as const;

/**
 * The properties that a look sets, saved looks resolved; properties beside a saved look win over it, and a side over
 * `around`.
 */
export function lookProperties(look: Look, saved: Readonly<Record<string, Look>>): Map<LookProperty, unknown> {
  const base = look.look === undefined ? undefined : saved[look.look];
  const properties = base ? lookProperties(base, saved) : new Map<LookProperty, unknown>();
  for (const name of PLAIN) if (look[name] !== undefined) properties.set(name, look[name]);
  for (const side of SIDES) {
    const border = look.border?.[side] ?? look.border?.around;
    if (border) properties.set(`border.${side}`, border);
  }
  return properties;
}

/** A look as it is without saved ones: what it takes from them becomes its own. */
export const plainLook = (look: Look, saved: Readonly<Record<string, Look>>): PlainLook =>
  nestProperties(lookProperties(look, saved)) as PlainLook; // the same properties, nested again

/** Puts properties back together: the nested form that files and screens use, in which each side stands on its own. */
export function nestProperties<T>(properties: ReadonlyMap<LookProperty, T>): Record<string, T | Record<string, T>> {
  const nested: Record<string, T | Record<string, T>> = {};
  for (const [name, value] of properties) {
    const side = name.split('.')[1];
    if (side) nested.border = { ...(nested.border as Record<string, T> | undefined), [side]: value };
    else nested[name] = value;
  }
  return nested;
}
