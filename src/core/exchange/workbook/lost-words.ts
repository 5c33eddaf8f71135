import type { PlainLook } from '../../looks/look';

/** The parts of a look that a workbook cannot show, in words; empty where it shows all of it. */
export const lostOf = (look: PlainLook): string =>
  [look.icon && 'its icon is left out', look.bar && 'its bar is left out', look.hideValue && 'values are not hidden']
    .filter(Boolean)
    .join(', ');

/** The report for a rule that a workbook cannot express. */
export const PLAINLY = 'the cells that match now are formatted plainly; they will not follow the data';
