import { createContext } from 'react';

/**
 * True inside a popover: what opens there must open within it, or a click on it would count as one outside and close
 * the popover.
 */
export const WithinPopover = createContext(false);
