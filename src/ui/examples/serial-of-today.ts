import { serialInZone } from '../../core/values/dates/serial-in-zone';

/** The moment as a serial date by the reader's clock. */
export const serialOfToday = (): number => serialInZone(Date.now(), Intl.DateTimeFormat().resolvedOptions().timeZone);
