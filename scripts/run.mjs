import { spawn, spawnSync } from 'node:child_process';

/** Something that a person must know and can act on: printed without a stack. */
export class Trouble extends Error {}

/** Runs a command to its end. Returns its standard output; throws Trouble with what it said where it fails. */
export function run(command, args, { quiet = true, cwd, env } = {}) {
  const result = spawnSync(command, args, {
    cwd,
    env: { ...process.env, ...env },
    encoding: 'utf8',
    stdio: ['ignore', quiet ? 'pipe' : 'inherit', quiet ? 'pipe' : 'inherit'],
    maxBuffer: 1 << 28,
  });
  if (result.error) throw new Trouble(`${command} cannot be run: ${result.error.message}`);
  if (result.status !== 0)
    throw new Trouble(
      `"${[command, ...args].join(' ')}" failed (exit ${result.status ?? result.signal}):\n${tail(`${result.stdout ?? ''}${result.stderr ?? ''}`)}`,
    );
  return result.stdout ?? '';
}

/** Runs a command beside others. Gives its exit code, null where it cannot be run, and all that it printed. */
export function runBeside(command, args, { cwd, env } = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd, env: { ...process.env, ...env }, stdio: ['ignore', 'pipe', 'pipe'] });
    let output = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (text) => (output += text));
    child.on('error', (error) => resolve({ status: null, output: error.message }));
    child.on('close', (status) => resolve({ status, output }));
  });
}

/** Runs a command to its end while it prints to our own output. Gives its exit code, null where it cannot be run. */
export function runToEnd(command, args, { cwd, env } = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, {
      cwd,
      env: { ...process.env, ...env },
      stdio: ['ignore', 'inherit', 'inherit'],
    });
    child.on('error', () => resolve(null));
    child.on('close', resolve);
  });
}

/** Starts a command that goes on by itself, in its own process group, so that Ctrl-C reaches only us. */
export function start(command, args, { cwd, env, stdio = 'inherit' } = {}) {
  return spawn(command, args, { cwd, env: { ...process.env, ...env }, stdio, detached: true });
}

export const tail = (text, lines = 30) => text.trimEnd().split('\n').slice(-lines).join('\n');

/** Runs the main function of a script; trouble ends it with its words and exit code 1. */
export async function main(work) {
  try {
    await work();
  } catch (error) {
    console.error(error instanceof Trouble ? `\n${error.message}` : error);
    process.exit(1);
  }
}
