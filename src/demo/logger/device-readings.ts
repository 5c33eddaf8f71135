import { randomLcg, randomNormal } from 'd3-random';

/** How field devices behave: each way alone, or one after another. */
export const LOGGER_WAYS = {
  steady: 'one reading after another',
  bursts: 'nothing for a while, then many at once',
  drift: 'a sensor that slowly runs away',
  faults: 'blanks, error codes, values that stick',
  mixed: 'all of this in turn',
} as const;
export type LoggerWay = keyof typeof LOGGER_WAYS;

/** A reading as a device sends it: values by label. */
export type DeviceReading = Readonly<Record<string, string | number | null>>;

/** The stations that have a device, and what is usual there. */
const STATIONS = [
  { name: 'Wren Spring', oxygen: 11.2, ph: 7.3, turbidity: 5, nitrate: 1.2 },
  { name: 'Alder Weir', oxygen: 10.4, ph: 7.2, turbidity: 8, nitrate: 1.8 },
  { name: 'Birch Ford', oxygen: 10.1, ph: 7.5, turbidity: 9, nitrate: 2.4 },
  { name: 'Cedar Sluice', oxygen: 9.6, ph: 7.6, turbidity: 14, nitrate: 3.1 },
  { name: 'Dipper Bridge', oxygen: 9.4, ph: 7.7, turbidity: 12, nitrate: 3.6 },
  { name: 'Elm Pool', oxygen: 8.7, ph: 7.8, turbidity: 22, nitrate: 4.2 },
  { name: 'Fold Meadow', oxygen: 7.6, ph: 7.9, turbidity: 26, nitrate: 6.8 },
  { name: 'Grange Outfall', oxygen: 7.1, ph: 8.1, turbidity: 30, nitrate: 7.4 },
  { name: 'Heron Island', oxygen: 7.9, ph: 7.9, turbidity: 24, nitrate: 5.9 },
  { name: 'Ivy Lock', oxygen: 8.2, ph: 8, turbidity: 34, nitrate: 5.2 },
  { name: 'Jetty Reach', oxygen: 8.0, ph: 8.1, turbidity: 38, nitrate: 4.9 },
] as const;

/** The fields that are a reading's key. */
export const DEVICE_KEY = ['Station', 'Day'] as const;

const FAULTS = ['', 'ERR 7', 'sensor error', '-9999', 'stuck'] as const;
/** Steps in which one way is kept while all are gone through. */
const STEPS_A_WAY = 12;
const IN_TURN = ['steady', 'bursts', 'drift', 'faults'] as const;

/** Devices at the demo's stations. The same seed gives the same readings. */
export class Devices {
  private readonly random: () => number;
  private step = 0;
  private readonly last = new Map<string, number>();
  private drifted = 0;

  constructor(
    private readonly way: LoggerWay,
    seed = 7,
  ) {
    this.random = randomLcg(seed);
  }

  /**
   * The readings of one step, at a moment such as `2026-03-08 14:30`: readings of the same minute change one record.
   */
  next(minute: string): DeviceReading[] {
    const step = this.step++;
    const way = this.way === 'mixed' ? IN_TURN[Math.floor(step / STEPS_A_WAY) % IN_TURN.length]! : this.way;
    const at = (offset: number) => STATIONS[(step + offset) % STATIONS.length]!;
    switch (way) {
      case 'steady':
        return [this.reading(at(0), minute)];
      case 'bursts':
        return step % 4 === 3
          ? STATIONS.map((station) => this.reading(station, minute, { storm: this.random() < 0.5 ? 3 : 1 }))
          : [];
      case 'drift':
        this.drifted += 0.25;
        return [this.reading(at(0), minute), this.reading(STATIONS[4], minute, { drift: this.drifted })];
      case 'faults':
        return [this.reading(at(0), minute), this.broken(at(3), minute, FAULTS[step % FAULTS.length]!)];
    }
  }

  private reading(
    { name, oxygen, ph, turbidity, nitrate }: (typeof STATIONS)[number],
    minute: string,
    { storm = 1, drift = 0 }: { readonly storm?: number; readonly drift?: number } = {},
  ): DeviceReading {
    const around = (mean: number, spread: number) => randomNormal.source(this.random)(mean, spread)();
    const round = (value: number, places: number) => Number(Math.max(0, value).toFixed(places));
    const read = round(around(oxygen - drift - (storm - 1) * 0.8, 0.6), 1);
    this.last.set(name, read);
    return {
      Station: name,
      Day: minute,
      Crew: 'Logger',
      pH: round(around(ph, 0.25), 1),
      'Dissolved oxygen': read,
      Turbidity: round(around(turbidity * storm, turbidity * 0.2), 0),
      Nitrate: round(around(nitrate, 0.7), 1),
      Note: storm > 1 ? 'after heavy rain' : drift > 2 ? 'probe to be checked' : null,
    };
  }

  private broken(station: (typeof STATIONS)[number], minute: string, fault: (typeof FAULTS)[number]): DeviceReading {
    const oxygen = fault === 'stuck' ? (this.last.get(station.name) ?? station.oxygen) : fault === '' ? null : fault;
    return {
      ...this.reading(station, minute),
      'Dissolved oxygen': oxygen,
      Note: fault === 'stuck' ? null : 'probe to be checked',
    };
  }
}
