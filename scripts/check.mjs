// npm run check: formatting, lint and types of the whole, and the tests that depend on what has changed since the
// last commit.
import { existsSync } from 'node:fs';
import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';
import { main, run, runBeside } from './run.mjs';

const root = dirname(dirname(fileURLToPath(import.meta.url)));

/** Files that differ from the last commit, or, where none do, those of the last commit. */
function changedFiles() {
  const git = (...args) => run('git', args, { cwd: root }).split('\n').filter(Boolean);
  const changed = [...git('diff', '--name-only', 'HEAD'), ...git('ls-files', '--others', '--exclude-standard')];
  return (changed.length ? changed : git('diff', '--name-only', 'HEAD~1')).filter((name) =>
    existsSync(`${root}/${name}`),
  );
}

await main(async () => {
  const typed = changedFiles().filter((name) => /\.tsx?$/.test(name));
  const checks = [
    ['formatting', 'oxfmt', '--check'],
    ['lint', 'oxlint'],
    ['types', '../typescript-native/bin/tsc', '--noEmit'],
    // Those of the browser, and those that need a database, are parts of npm test.
    ['tests', 'vitest', 'related', '--run', '--project', 'unit', ...typed],
  ].filter(([name]) => name !== 'tests' || typed.length > 0);
  const began = Date.now();
  const results = await Promise.all(
    checks.map(async ([name, command, ...args]) => {
      const { status, output } = await runBeside(`node_modules/.bin/${command}`, args, { cwd: root });
      const seconds = ((Date.now() - began) / 1000).toFixed(0);
      console.log(status === 0 ? `${name}: good (${seconds} s)` : `${output.trim()}\n${name}: FAILED (${seconds} s)`);
      return status === 0;
    }),
  );
  process.exitCode = results.every(Boolean) ? 0 : 1;
});
