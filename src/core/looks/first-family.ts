import type { Look } from './look';

export type Theme = 'light' | 'dark';

export interface SavedLook {
  readonly id: string;
  readonly name: string;
  readonly light: Look;
  readonly dark: Look;
}

const around = (color: string): Look['border'] => ({ around: { style: 'solid', width: 2, color } });

/**
 * The looks every sheet starts with, designed together: each light or dark fill carries its text at 4.5:1 or better.
 */
export const FIRST_FAMILY: readonly SavedLook[] = [
  {
    id: 'alarm',
    name: 'Alarm',
    light: { fill: '#f7d3c8', text: '#77200d', bold: true },
    dark: { fill: '#5a2418', text: '#ffd9cd', bold: true },
  },
  {
    id: 'watch',
    name: 'Watch',
    light: { fill: '#fde5ac', text: '#5a3a00' },
    dark: { fill: '#4d3a0d', text: '#fbe3a6' },
  },
  {
    id: 'clear',
    name: 'Clear',
    light: { fill: '#cfe8dc', text: '#0f4f3c' },
    dark: { fill: '#133f31', text: '#c5ecda' },
  },
  { id: 'cool', name: 'Cool', light: { fill: '#d3e4f6', text: '#143f6b' }, dark: { fill: '#17395c', text: '#d2e6fa' } },
  { id: 'plum', name: 'Plum', light: { fill: '#e9d8f0', text: '#53235f' }, dark: { fill: '#43234f', text: '#efdcf6' } },
  { id: 'quiet', name: 'Quiet', light: { text: '#6b6f78' }, dark: { text: '#9a9fa9' } },
  {
    id: 'ink',
    name: 'Ink',
    light: { fill: '#2c3350', text: '#ffffff', bold: true },
    dark: { fill: '#d9def2', text: '#1d2340', bold: true },
  },
  { id: 'ringed', name: 'Ringed', light: { border: around('#b4411f') }, dark: { border: around('#f0906f') } },
];
