import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll } from 'vitest';

/** The command, built from this project. */
export const COMMAND = fileURLToPath(new URL('../../bin/auxesis', import.meta.url));

/** The folder that the tests of a file run the command in. It is not the project's. */
export const folder = mkdtempSync(join(tmpdir(), 'auxesis-cli-'));
afterAll(() => rmSync(folder, { recursive: true }));

/** Writes a file into the folder. Returns its name there. */
export const file = (name: string, content: string | Uint8Array) => {
  writeFileSync(join(folder, name), content);
  return name;
};

/** Runs the command to its end. */
export const auxesis = (args: readonly string[], input?: string) =>
  spawnSync(COMMAND, args, { cwd: folder, input, encoding: 'utf8' });

export const data = file(
  'data.csv',
  'Station,Dissolved oxygen,Planned\nAlder,4.9,5\nBirch,5,5\nCedar,,5\nDipper,sensor error,5\nElm,4,9\n',
);
export const rule = {
  id: 'low-oxygen',
  name: 'Low oxygen',
  reads: { fields: ['dissolved  OXYGEN'] },
  when: { kind: 'compare', is: '<', to: 5 },
  paints: 'cell',
  look: { fill: '#ffe3a3', bold: true },
};
export const rules = (...list: readonly object[]) =>
  JSON.stringify({ format: 'auxesis-rules', version: 1, rules: list });
