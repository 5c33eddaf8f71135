/** Median of some numbers. */
export const median = (values) => values.toSorted((a, b) => a - b)[Math.floor(values.length / 2)];

/** Prints one figure beside what it is held against. */
export function figure(what, measured, baseline, target) {
  console.log(`${what.padEnd(62)} ${measured.padStart(14)}   ${baseline.padEnd(44)} ${target}`);
}

export const ms = (value) => `${value < 10 ? value.toFixed(2) : value.toFixed(0)} ms`;
