import { columnLetters } from '../core/sheet/address';
import type { NewSheet } from '../server/sheets/create-sheet';
import { demoSheet } from './demo-sheet';

const TEMPERATURES = [6, 8, 10, 12, 14, 16, 18, 20, 22];
const FLOWS = [10, 20, 30, 40, 60, 80, 100, 125, 150, 200];

/** Hours an aerator runs by flow and temperature, from one formula, and two limits in cells that three rules read. */
export function aeratorPlanner(): NewSheet {
  const header = 4;
  const temperature = (at: number): string => `t${at}`;
  return demoSheet({
    id: 'aerator-planner',
    name: 'Aerator planner',
    fields: [
      { id: 'flow', label: 'Flow, L/s', widthPx: 130, format: '0' },
      ...TEMPERATURES.map((degrees, at) => ({
        id: temperature(at),
        label: `${degrees} °C`,
        widthPx: 74,
        format: '0.0',
        unit: 'hours',
      })),
    ],
    above: [
      { role: 'title', cells: { flow: 'Hours a day that the aerator at Ivy Lock runs' } },
      { role: 'note', cells: { flow: 'Night rate up to', [temperature(0)]: '6' } },
      { role: 'note', cells: { flow: 'Pump limit', [temperature(0)]: '14' } },
      {
        role: 'note',
        cells: Object.fromEntries([
          ['flow', 'Temperature, °C'],
          ...TEMPERATURES.map((degrees, at) => [temperature(at), String(degrees)]),
        ]),
      },
    ],
    parts: [
      {
        id: 'heading',
        kind: 'merge',
        top: 'r1',
        bottom: 'r1',
        left: 'flow',
        right: temperature(TEMPERATURES.length - 1),
      },
    ],
    rows: FLOWS.map((flow, row) => ({
      cells: {
        flow: String(flow),
        ...Object.fromEntries(
          TEMPERATURES.map((_, at) => [
            temperature(at),
            `=ROUND($A${row + header + 2}^0.5*${columnLetters(at + 1)}$${header}/16,1)`,
          ]),
        ),
      },
    })),
    rules: [
      {
        id: 'too-long',
        name: 'Beyond the pump',
        note: 'Needs the second aerator',
        reads: { fields: TEMPERATURES.map((_, at) => temperature(at)) },
        when: { kind: 'compare', is: '>', to: { cell: 'B3' } },
        paints: 'cell',
        look: { look: 'alarm' },
      },
      {
        id: 'day-rate',
        name: 'Runs into the day rate',
        reads: { fields: TEMPERATURES.map((_, at) => temperature(at)) },
        when: { kind: 'formula', formula: `=AND(B${header + 2}>$B$2,B${header + 2}<=$B$3)` },
        paints: 'cell',
        look: { look: 'watch' },
      },
      {
        id: 'night-rate',
        name: 'Night rate is enough',
        reads: { fields: TEMPERATURES.map((_, at) => temperature(at)) },
        when: { kind: 'compare', is: '<=', to: { cell: 'B2' } },
        paints: 'cell',
        look: { look: 'clear' },
      },
    ],
  });
}
