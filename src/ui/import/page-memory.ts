import type { FilePreview } from '../../protocol/import-messages';

/** Bytes that a cell takes in the page, with what rules keep of it: measured at 10,000,000 cells under 20 rules. */
const BYTES_A_CELL = 40;
/** The part of a device's memory that one page can count on. */
const SHARE = 1 / 4;

export interface TooLarge {
  /** Megabytes that the sheet takes, and that a page has on this device. */
  readonly needed: number;
  readonly available: number;
}

/**
 * Why a sheet will not open on this device; undefined where it will, or where the browser does not tell how many
 * gigabytes the device has (Device Memory, W3C: rounded to a power of two, and 8 at most).
 */
export function tooLargeHere({ rowCount, fields }: FilePreview): TooLarge | undefined {
  if (!('deviceMemory' in navigator)) return undefined;
  const cells = rowCount * fields.filter(({ as }) => as !== 'nothing').length;
  const needed = Math.ceil((cells * BYTES_A_CELL) / 1e6);
  const available = Math.floor(Number(navigator.deviceMemory) * 1000 * SHARE);
  return needed > available ? { needed, available } : undefined;
}
