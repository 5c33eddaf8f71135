import type { Look } from './look';

export type Theme = 'light' | 'dark';

export interface SavedLook {
  readonly id: string;
  readonly name: string;
  readonly light: Look;
  readonly dark: Look;
}

const around = (color: string): Look['border'] => ({ around: { style: 'solid', width: 2, color } });

/** The looks every sheet starts with, designed together: each light or dark fill carries its text at 4.5:1 or better. */
export const FIRST_FAMILY: readonly SavedLook[] = [
  look('alarm', 'Alarm', { fill: '#f7d3c8', text: '#77200d', bold: true }, { fill: '#5a2418', text: '#ffd9cd', bold: true }),
  look('watch', 'Watch', { fill: '#fde5ac', text: '#5a3a00' }, { fill: '#4d3a0d', text: '#fbe3a6' }),
  look('clear', 'Clear', { fill: '#cfe8dc', text: '#0f4f3c' }, { fill: '#133f31', text: '#c5ecda' }),
  look('cool', 'Cool', { fill: '#d3e4f6', text: '#143f6b' }, { fill: '#17395c', text: '#d2e6fa' }),
  look('plum', 'Plum', { fill: '#e9d8f0', text: '#53235f' }, { fill: '#43234f', text: '#efdcf6' }),
  look('quiet', 'Quiet', { text: '#6b6f78' }, { text: '#9a9fa9' }),
  look('ink', 'Ink', { fill: '#2c3350', text: '#ffffff', bold: true }, { fill: '#d9def2', text: '#1d2340', bold: true }),
  look('ringed', 'Ringed', { border: around('#b4411f') }, { border: around('#f0906f') }),
];

function look(id: string, name: string, light: Look, dark: Look): SavedLook {
  return { id, name, light, dark };
}

/** The family as saved looks by id, for one theme. */
export const savedLooks = (theme: Theme): Record<string, Look> => Object.fromEntries(FIRST_FAMILY.map((saved) => [saved.id, saved[theme]]));
