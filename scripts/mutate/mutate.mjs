import { fork } from 'node:child_process';
import { createHash } from 'node:crypto';
import { cpSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { root } from '../steps.mjs';
import { allFaults, filesBelow, picked } from './faults.mjs';

/**
 * Plants single faults in copies of the core, one at a time, and says which of them no unit test of the core notices.
 * `node scripts/mutate/mutate.mjs [how many] [seed] [path that files must contain]`. First it finds out, once for each
 * state of the core, which file of tests runs which lines; a fault is shown only to those that run it, the near and quick ones first.
 */
const [count = '60', seed = '1', wanted = ''] = process.argv.slice(2);
const PROCESSES = 2;
/** Seconds after which a row of tests that waits for ever is given up: that is noticed, too. */
const MOST_TIME = 90;
/** Seconds of tests that are asked at once, so that what fails early is soon known. */
const ROW = 6;
/** A process is followed by a new one after so many faults, before what it keeps fills the memory. */
const FAULTS_EACH = 40;

/** What stands now, so that what is changed meanwhile does not count. */
const folder = mkdtempSync(join(tmpdir(), 'wexikine-mutate-'));
const standing = join(folder, 'core');
process.on('exit', () => rmSync(folder, { recursive: true, force: true }));
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => process.exit(1));
for (const path of ['package.json', 'jest.config.cjs', 'core', 'server/testing', 'docs/schemas']) {
  const filter = (from) => !/\/(node_modules|dist)$/.test(from);
  cpSync(join(root, path), join(standing, path), { recursive: true, filter });
}

/** A process that asks tests, as soon as it is ready. */
function start(isCounting) {
  const child = fork(join(import.meta.dirname, 'asker.mjs'), [standing, ...(isCounting ? ['counting'] : [])], {
    execArgv: ['--experimental-vm-modules', '--no-warnings'],
    env: { ...process.env, PROPERTY_SEED: '20261125' },
    stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
  });
  const asker = { child, asked: 0, ask: (what) => (child.send(what), answerOf(child)) };
  return answerOf(child).then(() => asker);
}

/** The next answer of a process; `isNoticed` where it ends or takes too long. */
function answerOf(child) {
  return new Promise((done) => {
    const finish = (answer) => {
      clearTimeout(timer);
      child.off('message', finish);
      child.off('exit', ended);
      done(answer);
    };
    const ended = () => finish({ isNoticed: true, isOver: true });
    const timer = setTimeout(() => child.kill('SIGKILL'), MOST_TIME * 1000);
    child.on('message', finish);
    child.on('exit', ended);
  });
}

/** Gives each of some things to whichever process is free. */
async function share(things, isCounting, work) {
  const left = [...things];
  const one = async () => {
    let asker = await start(isCounting);
    for (let thing = left.shift(); thing !== undefined; thing = left.shift()) {
      const answer = await work(asker, thing);
      asker.asked += 1;
      if (!answer.isOver && asker.asked < FAULTS_EACH) continue;
      asker.child.kill();
      asker = await start(isCounting);
    }
    asker.child.kill();
  };
  await Promise.all(Array.from({ length: PROCESSES }, one));
}

/** By file of tests, how many seconds it takes and which lines of which files run. */
async function whatRuns() {
  const files = filesBelow(standing, 'core/src');
  const hash = createHash('sha256');
  for (const file of files) hash.update(file).update(readFileSync(join(standing, file)));
  const kept = join(root, `node_modules/.cache/wexikine-mutate/${hash.digest('hex').slice(0, 16)}.json`);
  if (existsSync(kept)) return JSON.parse(readFileSync(kept, 'utf8'));
  const found = {};
  await share(
    files.filter((file) => file.endsWith('.test.ts')),
    true,
    async (asker, test) => {
      const began = performance.now();
      const answer = await asker.ask({ tests: [test] });
      if (answer.isNoticed) throw new Error(`${test} fails without any fault. Mend that first.`);
      found[test] = { seconds: (performance.now() - began) / 1000, ran: answer.ran };
      return answer;
    },
  );
  mkdirSync(dirname(kept), { recursive: true });
  writeFileSync(kept, JSON.stringify(found));
  return found;
}

/** The tests that run a line: first those of its room, then the quick ones; in rows that take a few seconds. */
function rowsFor(file, number, known) {
  const isNear = (test) => dirname(test) === dirname(file);
  const tests = Object.keys(known).filter((test) => known[test].ran[file]?.includes(number));
  tests.sort((a, b) => Number(isNear(b)) - Number(isNear(a)) || known[a].seconds - known[b].seconds);
  const rows = [];
  let room = 0;
  for (const test of tests) {
    if (room <= 0) room = rows.push([]) && ROW;
    rows.at(-1).push(test);
    room -= known[test].seconds;
  }
  return rows;
}

const known = await whatRuns();
const faults = allFaults(standing, wanted);
const tried = picked(faults, Number(count), Number(seed));
let asked = 0;
let survived = 0;
await share(tried, false, async (asker, { file, number, text, said }) => {
  const rows = rowsFor(file, number, known);
  let answer = { isNoticed: false };
  for (const tests of rows) if (!answer.isNoticed) answer = await asker.ask({ file, text, tests });
  asked += 1;
  if (!answer.isNoticed) survived += 1;
  const word = answer.isNoticed ? 'noticed ' : rows.length === 0 ? 'NOT RUN ' : 'SURVIVED';
  process.stdout.write(`${word} ${asked}/${tried.length} ${file}:${number + 1}: ${said}\n`);
  return answer;
});
const percent = ((100 * survived) / tried.length).toFixed(1);
process.stdout.write(
  `\n${survived} of ${tried.length} faults survived (${percent} %) of ${faults.length} there could be\n`,
);
