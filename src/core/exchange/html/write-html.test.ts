import { expect, test } from 'vitest';
import { EXPORT_FORMATS } from '../export-formats';
import { exportSource } from '../export-source';
import { stationReadings } from '../../../demo/station-readings';
import { evaluated, SAVED } from '../../../../test/support/workbook';

const page = (name: string) => {
  const evaluation = evaluated(stationReadings({ today: 46_089, records: 60 }));
  return [...EXPORT_FORMATS.html.write(exportSource(evaluation, { name, looks: SAVED })).parts].join('');
};

test('a page has the legend and every cell as it looks, and nothing in it is taken for HTML', () => {
  const text = page('<script>alert(1)</script>');
  expect(text).not.toContain('<script>');
  expect(text.match(/<tr>/g)).toHaveLength(61);
  expect(text).toContain('<b>Low oxygen</b>');
  // The look Alarm, as low oxygen has it.
  expect(text).toContain('background-color:#f7d3c8;color:#77200d;font-weight:bold');
});
