import type { PlainLook } from '../../looks/look';

/** What of a look a workbook cannot show, in words; empty where it shows all of it. */
export const lostOf = (look: PlainLook): string =>
  [look.icon && 'its icon is left out', look.bar && 'its bar is left out', look.hideValue && 'values are not hidden'].filter(Boolean).join(', ');

/** What is told of a rule that a workbook has no way to say. */
export const PLAINLY = 'the cells that match now are formatted plainly; they will not follow the data';
