import { formatNumber } from './number-format';

/** A threshold in its field's own format, but with all its decimals: what is compared is what is shown. */
export function thresholdText(threshold: number, format: string | null): string {
  if (format?.includes('%')) return `${Number((threshold * 100).toPrecision(12))}%`;
  const formatted = formatNumber(threshold, format);
  if (Number(formatted.replaceAll(',', '')) === threshold) return formatted;
  return format?.includes(',') ? threshold.toLocaleString('en', { maximumFractionDigits: 12 }) : String(threshold);
}
