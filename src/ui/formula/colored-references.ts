import { referencesIn, type Surroundings, type TypedReference } from '../../core/formula/syntax/typed-formula';
import { TOKENS } from '../theme/tokens';

export interface ColoredReference extends TypedReference {
  /** Index into the theme's colours of references. */
  readonly color: number;
}

const COLORS = TOKENS.light.references.length;

/** The references of a formula, each with a colour: the same cells have the same one in the text and on the grid. */
export function coloredReferences(text: string, sheet: Surroundings): ColoredReference[] {
  const areas: string[] = [];
  return referencesIn(text, sheet).map((reference) => {
    const area = JSON.stringify(reference.area);
    if (!areas.includes(area)) areas.push(area);
    return { ...reference, color: areas.indexOf(area) % COLORS };
  });
}
