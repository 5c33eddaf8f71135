import { randomLcg, randomNormal, randomUniform } from 'd3-random';
import { generateNKeysBetween } from 'fractional-indexing';
import { itemAt } from '../core/values/item-at';
import { storedInOrder } from '../core/rules/shape/stored-in-order';
import type { StoredRow } from '../core/sheet/change';
import type { Field } from '../core/sheet/field';
import { isoFromSerial } from '../core/values/dates/date-serial';
import type { NewSheet } from '../server/sheets/create-sheet';
import { stationRules } from './station-rules';

interface Column extends Omit<Field, 'key'> {
  readonly label: string;
}

const COLUMNS: readonly Column[] = [
  column('station', 'Station', { widthPx: 132 }),
  column('reach', 'Reach', { widthPx: 92 }),
  column('day', 'Day', { widthPx: 130 }),
  column('crew', 'Crew', { widthPx: 124 }),
  column('temperature', 'Temperature', { unit: '°C', format: '0.0', widthPx: 98 }),
  column('ph', 'pH', { format: '0.0', widthPx: 60 }),
  column('oxygen', 'Dissolved oxygen', { unit: 'mg/L', format: '0.0', widthPx: 128 }),
  column('saturation', 'Saturation', { format: '0%', widthPx: 90 }),
  column('turbidity', 'Turbidity', { unit: 'NTU', format: '0', widthPx: 84 }),
  column('nitrate', 'Nitrate', { unit: 'mg/L', format: '0.0', widthPx: 76 }),
  column('ecoli', 'E. coli count', { unit: 'per 100 mL', format: '#,##0', widthPx: 104 }),
  column('note', 'Note', { widthPx: 190 }),
];

/** Eleven stations from the spring to the mouth; how they differ makes the averages by station worth having. */
const STATIONS = [
  { name: 'Wren Spring', reach: 'Headwater', warm: -1.5, clear: 5, fields: 1.2, herd: 0.25 },
  { name: 'Alder Weir', reach: 'Headwater', warm: -1, clear: 8, fields: 1.8, herd: 0.5 },
  { name: 'Birch Ford', reach: 'Headwater', warm: -0.6, clear: 9, fields: 2.4, herd: 0.8 },
  { name: 'Cedar Sluice', reach: 'Upper', warm: 0, clear: 14, fields: 3.1, herd: 1 },
  { name: 'Dipper Bridge', reach: 'Upper', warm: 0.2, clear: 12, fields: 3.6, herd: 1.2 },
  { name: 'Elm Pool', reach: 'Upper', warm: 0.8, clear: 22, fields: 4.2, herd: 1.4 },
  { name: 'Fold Meadow', reach: 'Middle', warm: 0.9, clear: 26, fields: 6.8, herd: 2.6 },
  { name: 'Grange Outfall', reach: 'Middle', warm: 1.6, clear: 30, fields: 7.4, herd: 3.4 },
  { name: 'Heron Island', reach: 'Middle', warm: 1.1, clear: 24, fields: 5.9, herd: 1.6 },
  { name: 'Ivy Lock', reach: 'Lower', warm: 1.5, clear: 34, fields: 5.2, herd: 1.5 },
  { name: 'Jetty Reach', reach: 'Lower', warm: 1.8, clear: 38, fields: 4.9, herd: 1.3 },
] as const;

const CREWS = [
  'Oakfield School',
  'Minnow group',
  'Tuesday crew',
  'Saltmarsh School',
  'Rosa and Emeka',
  'Lower Fold',
  'Ines Calder',
];

/**
 * The demo's main sheet: readings at eleven stations, week by week up to `today` (days since 1899-12-30). The same seed
 * gives the same sheet.
 */
export function stationReadings({
  today,
  records = 480,
  seed = 20260308,
}: {
  today: number;
  records?: number;
  seed?: number;
}): NewSheet {
  const random = randomLcg(seed);
  const keys = generateNKeysBetween(null, null, records + 1);
  const weeks = Math.ceil(records / STATIONS.length);
  const header: StoredRow = {
    id: 'header',
    key: itemAt(keys, 0),
    role: 'header',
    cells: Object.fromEntries(COLUMNS.map(({ id, label }) => [id, label])),
  };
  const rows = Array.from({ length: records }, (_, at): StoredRow => {
    const week = Math.floor(at / STATIONS.length);
    const cells = reading({ station: at % STATIONS.length, day: today - (weeks - 1 - week) * 7 - (at % 3), random });
    return { id: `r${at + 1}`, key: itemAt(keys, at + 1), role: 'record', cells };
  });
  const fieldKeys = generateNKeysBetween(null, null, COLUMNS.length);
  const fields = COLUMNS.map(({ label: _, ...field }, at) => ({ ...field, key: itemAt(fieldKeys, at) }));
  return {
    id: 'station-readings',
    name: 'Station readings',
    fields,
    rows: [header, ...rows],
    rules: storedInOrder(stationRules),
  };
}

function column(id: string, label: string, rest: Partial<Omit<Field, 'key'>>): Column {
  return { id, label, widthPx: 100, format: null, unit: null, ...rest };
}

function reading({
  station,
  day,
  random,
}: {
  station: number;
  day: number;
  random: () => number;
}): Record<string, string> {
  const place = itemAt(STATIONS, station);
  const around = (mean: number, spread: number) => randomNormal.source(random)(mean, spread)();
  const season = Math.sin(((day - 46_127) / 365.25) * 2 * Math.PI);
  const temperature = Math.max(0.5, 10.5 + 6.5 * season + place.warm + around(0, 0.8));
  const storm = randomUniform.source(random)(0, 1)() < 0.08 ? 1 : 0;
  const turbidity = Math.max(1, place.clear * (1 + 2.2 * storm) + around(0, place.clear * 0.22));
  const stress = Math.max(0, season) * (place.reach === 'Middle' ? 0.2 : 0.08);
  const saturation = Math.min(1.18, Math.max(0.28, around(0.93 - stress - 0.1 * storm, 0.09)));
  const ecoli = Math.round(60 * place.herd * Math.exp(around(0.2 + 1.6 * storm, 0.75)));
  const practice = random() < 0.02;
  const broken = random();
  const cells: Record<string, string> = {
    station: place.name,
    reach: place.reach,
    day: isoFromSerial(day),
    crew: practice ? 'practice' : itemAt(CREWS, Math.floor(random() * CREWS.length)),
    temperature: temperature.toFixed(1),
    ph: around(7.6 + 0.35 * Math.max(0, season) - 0.45 * (station < 2 ? 1 : 0), 0.42).toFixed(1),
    oxygen:
      broken < 0.015 ? 'sensor error' : broken < 0.03 ? '' : (saturation * oxygenAtSaturation(temperature)).toFixed(1),
    saturation: broken < 0.03 ? '' : `${Math.round(saturation * 100)}%`,
    turbidity: turbidity.toFixed(0),
    nitrate: Math.max(0.1, around(place.fields, 0.9)).toFixed(1),
    ecoli: random() < 0.03 ? '' : String(ecoli),
    note: practice
      ? 'training, not for the record'
      : broken < 0.015
        ? 'probe to be checked'
        : storm
          ? 'after heavy rain'
          : '',
  };
  return Object.fromEntries(Object.entries(cells).filter(([, input]) => input !== ''));
}

/**
 * Dissolved oxygen of fresh water in equilibrium with air at sea level, mg/L by °C: the cubic fit of Elmore and Hayes
 * (1960).
 */
function oxygenAtSaturation(celsius: number): number {
  return 14.652 - 0.41022 * celsius + 0.007991 * celsius ** 2 - 0.000077774 * celsius ** 3;
}
