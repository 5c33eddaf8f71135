// npm test: sets up what is missing, runs every check, and ends with one line: N passed, M failed.
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { spawnSync } from 'node:child_process';
import { buildApp } from './build-app.mjs';
import { installDebianPackage } from './debian-package.mjs';
import { installPackages } from './install-packages.mjs';
import { Cluster, freePort } from './postgres.mjs';
import { main, run, runBeside } from './run.mjs';
import { prepareDatabase, serveApp } from './serve-app.mjs';

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const reports = mkdtempSync(join(tmpdir(), 'auxesis-test-'));
const tally = { passed: 0, failed: 0 };

/** Checks of the sources, each of which counts as one. */
const CHECKS = [
  ['lint', 'eslint', '.'],
  ['types', '../typescript-native/bin/tsc', '--noEmit'],
  ['formatting', 'prettier', '--check', '--log-level', 'warn', '.'],
  ['import directions and cycles', 'depcruise', 'src', 'scripts', 'test', '--output-type', 'err'],
  ['dead exports', 'knip', '--no-progress'],
];

/** What reads and checks the workbooks that the tests write, and the example for a proxy, each with Debian's package that holds it. */
const READERS = [
  ['/usr/bin/xmllint', 'libxml2-utils'],
  ['/usr/share/java/jOpenDocument-1.3.jar', 'libjopendocument-java'],
  ['/usr/lib/python3/dist-packages/openpyxl', 'python3-openpyxl'],
  ['/usr/lib/python3/dist-packages/odf', 'python3-odf'],
  ['/usr/sbin/nginx', 'nginx-light'],
  ['/usr/bin/openssl', 'openssl'],
];

/** Runs the checks one after another, and tells each once it is done. */
async function checkSources() {
  for (const [name, command, ...args] of CHECKS) {
    const began = Date.now();
    const { status, output } = await runBeside(join(root, 'node_modules/.bin', command), args, { cwd: root });
    console.log(`\n== ${name}\n${output.trim()}`);
    console.log(`== ${name}: ${status === 0 ? 'good' : 'FAILED'} (${((Date.now() - began) / 1000).toFixed(0)} s)`);
    count(status === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 });
  }
}

/** Runs a suite and counts its tests from the report that it writes. A suite that fell over without one counts as failed. */
function suite(name, { args, env, report, read }) {
  const { status } = execute(name, 'npx', args, env);
  const counted = existsSync(report) ? read(JSON.parse(readFileSync(report, 'utf8'))) : { passed: 0, failed: 0 };
  if (status !== 0 && counted.failed === 0) counted.failed = 1;
  if (counted.passed + counted.failed === 0) counted.failed = 1;
  count(counted);
}

function execute(name, command, args, env) {
  console.log(`\n== ${name}`);
  const began = Date.now();
  const result = spawnSync(command, args, { cwd: root, stdio: ['ignore', 'inherit', 'inherit'], env: { ...process.env, ...env } });
  console.log(`== ${name}: ${result.status === 0 ? 'good' : 'FAILED'} (${((Date.now() - began) / 1000).toFixed(0)} s)`);
  return result;
}

function count({ passed, failed }) {
  tally.passed += passed;
  tally.failed += failed;
}

await main(async () => {
  installPackages(root);
  if (!existsSync('/usr/bin/chromium')) installDebianPackage('chromium', 'the browser for end-to-end tests');
  const missing = READERS.filter(([file]) => !existsSync(file)).map(([, name]) => name);
  if (missing.length) installDebianPackage(missing.join(' '), 'independent readers of workbooks, a published schema and a proxy, for tests');
  const cluster = new Cluster(root, `test-${process.pid}`);
  let app;
  const end = async () => {
    await app?.stop();
    cluster.remove();
    rmSync(reports, { recursive: true, force: true });
  };
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => void end().then(() => process.exit(1)));
  try {
    const database = await cluster.start('auxesis');
    // The build takes one processor, the checks another.
    await Promise.all([buildApp(root), checkSources()]);
    run(process.execPath, ['scripts/bundle-command-line.mjs'], { cwd: root });
    suite('unit, reference, server and command line tests', {
      args: ['vitest', 'run', '--reporter=default', '--reporter=json', `--outputFile.json=${join(reports, 'unit.json')}`],
      // These make databases of their own.
      env: { DATABASE_URL: cluster.adminUrl },
      report: join(reports, 'unit.json'),
      read: (report) => ({ passed: report.numPassedTests, failed: report.numFailedTests }),
    });
    prepareDatabase(root, database);
    app = serveApp(root, { database, port: await freePort() });
    await app.ready;
    suite('end-to-end tests in Chromium', {
      args: ['playwright', 'test'],
      env: { DATABASE_URL: database, AUXESIS_URL: app.address, AUXESIS_REPORT: join(reports, 'e2e.json') },
      report: join(reports, 'e2e.json'),
      read: ({ stats }) => ({ passed: stats.expected, failed: stats.unexpected + stats.flaky }),
    });
  } finally {
    await end();
  }
  console.log(`\n${tally.passed} passed, ${tally.failed} failed`);
  process.exitCode = tally.failed === 0 ? 0 : 1;
});
