// npm test: sets up what is missing, runs every part, and ends with one line: N passed, M failed. A part by its name
// runs alone: node scripts/test.mjs e2e files.spec.ts
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { buildApp } from './build-app.mjs';
import { CHROMIUM } from './chromium.mjs';
import { installDebianPackage } from './debian-package.mjs';
import { installPackages } from './install-packages.mjs';
import { makeLinkedTable } from './linked-table.mjs';
import { Cluster, freePort } from './postgres.mjs';
import { main, run, runBeside, runToEnd, Trouble } from './run.mjs';
import { prepareDatabase, serveApp } from './serve-app.mjs';

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const reports = mkdtempSync(join(tmpdir(), 'auxesis-test-'));
const tally = { passed: 0, failed: 0 };

/** Checks of the sources, each of which counts as one. */
const CHECKS = {
  lint: [
    ['lint', 'oxlint'],
    ['plain words', '../../scripts/check-words.mjs'],
  ],
  types: [['types', '../typescript-native/bin/tsc', '--noEmit']],
  formatting: [['formatting', 'oxfmt', '--check']],
  deps: [
    ['import directions and cycles', 'depcruise', 'src', 'scripts', 'test', '--output-type', 'err'],
    ['dead exports', 'knip', '--no-progress'],
  ],
};

/** Programs that check what the tests write, and the example for a proxy, each with Debian's package that holds it. */
const TOOLS = [
  ['/usr/bin/xmllint', 'libxml2-utils'],
  ['/usr/share/java/jOpenDocument-1.3.jar', 'libjopendocument-java'],
  ['/usr/lib/python3/dist-packages/openpyxl', 'python3-openpyxl'],
  ['/usr/lib/python3/dist-packages/odf', 'python3-odf'],
  ['/usr/sbin/nginx', 'nginx-light'],
  ['/usr/sbin/pgbouncer', 'pgbouncer'],
  ['/usr/bin/openssl', 'openssl'],
];

/** Rules beside their limits; nothing else runs meanwhile. */
const SPEED = [['speed of rules', 'tsx', 'scripts/bench/ratio-guard.ts']];

/** Rows of the linked table of the end-to-end tests. */
const LINKED_ROWS = 5000;

const PARTS = [...Object.keys(CHECKS), 'speed', 'unit', 'server', 'e2e'];

/** Runs checks side by side, the longest beside all others, and prints the output of each once it is done. */
async function checkSources(parts) {
  const [longest, ...others] = parts.flatMap((part) => CHECKS[part] ?? []);
  await Promise.all([checkInTurn(longest ? [longest] : []), checkInTurn(others)]);
}

async function checkInTurn(checks) {
  for (const [name, command, ...args] of checks) {
    const began = Date.now();
    const { status, output } = await runBeside(join(root, 'node_modules/.bin', command), args, { cwd: root });
    console.log(`\n== ${name}\n${output.trim()}`);
    console.log(`== ${name}: ${status === 0 ? 'good' : 'FAILED'} (${seconds(began)} s)`);
    count(status === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 });
  }
}

/** Runs a suite and counts its tests from the report that it writes. A suite that ends without one counts as failed. */
async function suite(name, { args, env, report, read }) {
  console.log(`\n== ${name}`);
  const began = Date.now();
  const status = await runToEnd('npx', args, { cwd: root, env });
  console.log(`== ${name}: ${status === 0 ? 'good' : 'FAILED'} (${seconds(began)} s)`);
  const counted = existsSync(report) ? read(JSON.parse(readFileSync(report, 'utf8'))) : { passed: 0, failed: 0 };
  if (status !== 0 && counted.failed === 0) counted.failed = 1;
  if (counted.passed + counted.failed === 0) counted.failed = 1;
  count(counted);
}

const seconds = (began) => ((Date.now() - began) / 1000).toFixed(0);

function count({ passed, failed }) {
  tally.passed += passed;
  tally.failed += failed;
}

function installTools(parts) {
  if (parts.includes('e2e') && !existsSync(CHROMIUM.executablePath))
    installDebianPackage('chromium', 'the browser for end-to-end tests');
  const missing = parts.includes('server') ? TOOLS.filter(([file]) => !existsSync(file)).map(([, name]) => name) : [];
  if (missing.length)
    installDebianPackage(
      missing.join(' '),
      'independent readers of workbooks, a published schema and a proxy, for tests',
    );
}

/** Tests that need no browser. Those of the server make databases of their own. */
const vitest = (projects, files, database) =>
  suite(`tests of ${projects.join(' and ')}`, {
    args: [
      ...['vitest', 'run', ...projects.map((project) => `--project=${project}`), ...files],
      ...['--reporter=default', '--reporter=json', `--outputFile.json=${join(reports, 'unit.json')}`],
    ],
    env: { DATABASE_URL: database },
    report: join(reports, 'unit.json'),
    read: (report) => ({ passed: report.numPassedTests, failed: report.numFailedTests }),
  });

const playwright = (files, { database, address, linked }) =>
  suite('end-to-end tests in Chromium', {
    args: ['playwright', 'test', ...files],
    env: {
      DATABASE_URL: database,
      AUXESIS_URL: address,
      LINKED_ADDRESS: linked,
      AUXESIS_REPORT: join(reports, 'e2e.json'),
    },
    report: join(reports, 'e2e.json'),
    read: ({ stats }) => ({ passed: stats.expected, failed: stats.unexpected + stats.flaky }),
  });

await main(async () => {
  const [part, ...files] = process.argv.slice(2);
  if (part && !PARTS.includes(part))
    throw new Trouble(`There is no part "${part}". The parts are: ${PARTS.join(', ')}.`);
  const parts = part ? [part] : PARTS;
  installPackages(root);
  installTools(parts);
  const cluster = new Cluster(root, `test-${process.pid}`);
  let app;
  const end = async () => {
    await app?.stop();
    if (cluster.exists()) cluster.remove();
    rmSync(reports, { recursive: true, force: true });
  };
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => void end().then(() => process.exit(1)));
  try {
    const projects = ['unit', 'server'].filter((name) => parts.includes(name));
    const needsDatabase = parts.includes('server') || parts.includes('e2e');
    const database = needsDatabase ? await cluster.start('auxesis') : null;
    // The build and the checks share the processors.
    await Promise.all([needsDatabase ? buildApp(root) : null, checkSources(parts)]);
    if (parts.includes('speed')) await checkInTurn(SPEED);
    if (projects.length) {
      run(process.execPath, ['scripts/bundle-command-line.mjs'], { cwd: root });
      await vitest(projects, files, cluster.adminUrl);
    }
    if (parts.includes('e2e')) {
      prepareDatabase(root, database);
      const linked = await makeLinkedTable(cluster.adminUrl, LINKED_ROWS);
      app = serveApp(root, { database, port: await freePort(), settings: cluster.linkSettings });
      await app.ready;
      await playwright(files, { database, address: app.address, linked });
    }
  } finally {
    await end();
  }
  console.log(`\n${tally.passed} passed, ${tally.failed} failed`);
  process.exitCode = tally.failed === 0 ? 0 : 1;
});
