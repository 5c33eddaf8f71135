import { isoFromSerial } from '../core/values/dates/date-serial';
import type { NewSheet } from '../server/sheets/create-sheet';
import { demoSheet } from './demo-sheet';

/**
 * Item, holder, serial number, days since it was bought and calibrated, days until it is due, battery, stock and
 * reorder level.
 */
const KIT: readonly (readonly [string, string, string, number, number, number | null, string, string, string])[] = [
  ['Oxygen probe', 'Minnow group', 'OP-1041', 730, 21, 9, '81%', '', ''],
  ['Oxygen probe', 'Oakfield School', 'OP-1042', 730, 192, -12, '34%', '', ''],
  ['Oxygen probe', 'Tuesday crew', 'OP-1047', 410, 178, 2, '62%', '', ''],
  ['pH meter', 'Saltmarsh School', 'PM-220', 1095, 88, 5, '18%', '', ''],
  ['pH meter', 'Lower Fold', 'PM-223', 540, 90, 26, '77%', '', ''],
  ['pH meter', 'Rosa and Emeka', 'PM-220', 320, 60, 31, '90%', '', ''],
  ['Turbidity tube', 'Ines Calder', 'TT-07', 1460, 365, null, '', '', ''],
  ['Turbidity meter', 'Minnow group', 'TM-31', 200, 200, -3, '45%', '', ''],
  ['Thermometer', 'Oakfield School', 'TH-118', 900, 300, 65, '', '', ''],
  ['Thermometer', 'Saltmarsh School', 'TH-119', 900, 310, 0, '', '', ''],
  ['Nitrate strips', 'store', '', 120, 120, 45, '', '14', '20'],
  ['pH buffer 7.0', 'store', '', 60, 60, 120, '', '9', '6'],
  ['pH buffer 4.0', 'store', '', 60, 60, 120, '', '5', '6'],
  ['E. coli plates', 'store', '', 30, 30, 20, '', '48', '40'],
  ['Sample bottles', 'store', '', 250, 250, null, '', '130', '60'],
];

/** The colour in which somebody has filled the batteries that are to be charged, by hand. */
const BY_HAND = '#dfe7b0';
const isLow = (battery: string): boolean => battery !== '' && Number.parseInt(battery, 10) < 50;

/**
 * Probes and reagents: calibrations that are due, and stocks that run out. Dates are relative to `today` (days since
 * 1899-12-30).
 */
export function samplingKit(today: number): NewSheet {
  const day = (away: number | null): string => (away === null ? '' : isoFromSerial(today + away));
  return demoSheet({
    id: 'sampling-kit',
    name: 'Sampling kit',
    fields: [
      { id: 'item', label: 'Item', widthPx: 130 },
      { id: 'holder', label: 'Holder', widthPx: 130 },
      { id: 'serial', label: 'Serial number', widthPx: 110 },
      { id: 'bought', label: 'Bought', widthPx: 100 },
      { id: 'calibrated', label: 'Last calibrated', widthPx: 116 },
      { id: 'due', label: 'Next due', widthPx: 100 },
      { id: 'battery', label: 'Battery', widthPx: 80, format: '0%' },
      { id: 'stock', label: 'Stock', widthPx: 80, format: '0' },
      { id: 'level', label: 'Reorder level', widthPx: 106, format: '0' },
    ],
    rows: KIT.map(([item, holder, serial, bought, calibrated, due, battery, stock, level]) => ({
      ...(isLow(battery) ? { about: { styles: { battery: { fill: BY_HAND } } } } : {}),
      cells: {
        item,
        holder,
        serial,
        bought: day(-bought),
        calibrated: day(-calibrated),
        due: day(due),
        battery,
        stock,
        level,
      },
    })),
    rules: [
      {
        id: 'overdue',
        name: 'Overdue',
        group: 'Calibration',
        note: 'Readings of this probe do not count until it is calibrated',
        reads: { fields: ['due'] },
        when: { kind: 'date', is: 'past' },
        paints: { fields: ['item', 'due'] },
        look: { look: 'alarm' },
      },
      {
        id: 'due-this-week',
        name: 'Due in a week',
        group: 'Calibration',
        reads: { fields: ['due'] },
        when: { kind: 'date', is: { next: 7, unit: 'day' } },
        paints: 'cell',
        look: { look: 'watch' },
      },
      {
        id: 'running-out',
        name: 'Order more',
        group: 'Stock',
        note: 'Below the reorder level of the item itself',
        reads: { fields: ['stock'] },
        when: { kind: 'compare', is: '<', to: { field: 'level' } },
        paints: { fields: ['item', 'stock', 'level'] },
        look: { look: 'plum' },
      },
      {
        id: 'battery',
        name: 'Battery',
        reads: { fields: ['battery'] },
        when: { kind: 'bar', from: 0, to: 1 },
        paints: 'cell',
      },
      {
        id: 'same-number',
        name: 'Serial number met twice',
        reads: { fields: ['serial'] },
        when: { kind: 'repeat', is: 'repeated' },
        paints: 'cell',
        look: { look: 'ringed' },
      },
    ],
  });
}
