import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { findBrowser, installIfNeeded, root } from './steps.mjs';

/** Everything that must pass, in one command: install, lint, types, unit and end-to-end tests. */
const REPORTS = join(root, '.reports');
let passed = 0;
let failed = 0;

function step(name, command, args, env = {}) {
  process.stdout.write(`\n== ${name}\n`);
  const { status } = spawnSync(command, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } });
  return status === 0;
}

/** A step that either holds or does not counts as one test. */
function tally(isFine) {
  if (isFine) passed++;
  else failed++;
}

/** One step; what it says is shown when it is done. Gives whether it was fine. */
function quietly([name, args, env = {}]) {
  return new Promise((resolve) => {
    let said = '';
    const child = spawn('npm', ['run', '--silent', ...args], { cwd: root, env: { ...process.env, ...env } });
    const hear = (text) => (said += text);
    child.stdout.setEncoding('utf8').on('data', hear);
    child.stderr.setEncoding('utf8').on('data', hear);
    child.on('error', (error) => hear(error.message));
    child.on('close', (status) => {
      process.stdout.write(`\n== ${name}\n${said}`);
      resolve(status === 0);
    });
  });
}

/** Rows of steps, one after the other in each, that keep a core busy each, side by side. Gives which were fine. */
async function sideBySide(rows) {
  const inTurn = async (steps) => {
    const ends = [];
    for (const one of steps) ends.push(await quietly(one));
    return ends;
  };
  return (await Promise.all(rows.map(inTurn))).flat();
}

function readReport(file) {
  const path = join(REPORTS, file);
  return existsSync(path) ? JSON.parse(readFileSync(path, 'utf8')) : null;
}

/** Adds a test runner's own counts; a runner that ended badly without a failed test counts as one failure. */
function count(isFine, ok, bad) {
  passed += ok;
  failed += bad > 0 || isFine ? bad : 1;
}

rmSync(REPORTS, { recursive: true, force: true });
mkdirSync(REPORTS, { recursive: true });
const browserThere = findBrowser();
installIfNeeded({ forTests: true });
/** One seed for the property tests, so that a result can be repeated; `npm run unit` draws other examples each time. */
const PROPERTY_SEED = '20261125';
const unitTests = ['unit', '--', '--json', `--outputFile=${join(REPORTS, 'jest.json')}`];
// The build checks the types of the page and of its templates, too. Unit tests ask what was built; they take over the core
// that it leaves before the other checks are done.
const [isBuilt, isUnitFine, ...checks] = await sideBySide([
  [
    ['Build', ['build']],
    ['Unit tests', unitTests, { PROPERTY_SEED }],
  ],
  [
    ['Lint and format', ['lint']],
    ['Types', ['types']],
  ],
]);
[isBuilt, ...checks].forEach(tally);
const jest = readReport('jest.json');
count(isUnitFine, jest?.numPassedTests ?? 0, (jest?.numFailedTests ?? 0) + (jest?.numRuntimeErrorTestSuites ?? 0));

/** The end-to-end tests, two files side by side, each over a server and a browser of its own: one waits while the other works. */
await browserThere;
const browser = step('End-to-end tests', 'npm', ['run', '--silent', 'e2e'], {
  E2E_WORKERS: '2',
  PLAYWRIGHT_JSON_OUTPUT_NAME: join(REPORTS, 'playwright.json'),
});
const stats = readReport('playwright.json')?.stats;
count(browser, (stats?.expected ?? 0) + (stats?.flaky ?? 0), stats?.unexpected ?? 0);

process.exitCode = failed === 0 ? 0 : 1;
process.stdout.write(`\n${passed} passed, ${failed} failed\n`);
