/** An element as it was read, with what is in it. */
export interface XmlElement {
  /** Its local name, with the prefix of its vocabulary where a reader has named one (see read-xml.ts). */
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  /** Text and elements in order. */
  readonly content: readonly (string | XmlElement)[];
}

/** The elements of a name right inside another. */
export const childrenOf = (parent: XmlElement | undefined, name: string): XmlElement[] =>
  (parent?.content ?? []).filter((each): each is XmlElement => typeof each !== 'string' && each.name === name);

export const childOf = (parent: XmlElement | undefined, name: string): XmlElement | undefined =>
  childrenOf(parent, name)[0];

/** All elements right inside another. */
export const elementsOf = (parent: XmlElement | undefined): XmlElement[] =>
  (parent?.content ?? []).filter((each) => typeof each !== 'string');

/** All text in an element, in order. */
export const textOf = (element: XmlElement | undefined): string =>
  (element?.content ?? []).map((each) => (typeof each === 'string' ? each : textOf(each))).join('');
