import { spawnSync } from 'node:child_process';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { root } from './steps.mjs';

/**
 * Plants single faults in the core, one at a time, and says which of them no unit test notices. The working copy is put
 * back after each. `node scripts/mutate.mjs [how many] [seed] [path that files must contain] [near]`; with `near` only the
 * tests of the fault's own room are asked, which is quick and shows what these leave to others.
 */
const [count = '60', seed = '1', wanted = '', near] = process.argv.slice(2);
const CORE = join(root, 'core/src');
/** Data and generated code say nothing that a fault could turn round. */
const LEFT_OUT = /(\.test\.ts|index\.ts|\.generated\.\w+|\/starter\/|\/demo\/|\/testing\/)/;
/** Seconds after which tests that wait for ever are given up: several times what all of the core takes on one busy processor. */
const MOST_TIME = (near === 'near' ? 2 : 20) * 60;

/** What is put in whose place; the first that fits a random place of a line is taken. */
const FAULTS = [
  [/ < /, ' <= '],
  [/ <= /, ' < '],
  [/ > /, ' >= '],
  [/ >= /, ' > '],
  [/ === /, ' !== '],
  [/ !== /, ' === '],
  [/ && /, ' || '],
  [/ \|\| /, ' && '],
  [/ \+ /, ' - '],
  [/ - /, ' + '],
  [/ \* /, ' / '],
  [/ \/ /, ' * '],
  [/ \?\? /, ' && '],
  [/Math\.min\(/, 'Math.max('],
  [/Math\.max\(/, 'Math.min('],
  [/\btrue\b/, 'false'],
  [/\bfalse\b/, 'true'],
  [/\.slice\(0, /, '.slice(1, '],
  [/return (?!undefined|null)[\w.]+;$/, 'return undefined as never;'],
];

function filesIn(folder) {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return filesIn(path);
    return path.endsWith('.ts') && !LEFT_OUT.test(path) && path.includes(wanted) ? [path] : [];
  });
}

/** A repeatable row of numbers from 0 to 1. Source: mulberry32, public domain. */
function randomNumbers(start) {
  let state = start >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}

/** Every fault that could be planted. */
function allFaults() {
  return filesIn(CORE).flatMap((file) =>
    readFileSync(file, 'utf8')
      .split('\n')
      .flatMap((line, number) => {
        const isCode = !/^\s*(\/\/|\*|\/\*|\||import|export (type|interface)|(\{ )?readonly|\w+\?: )/.test(line);
        return isCode && !line.includes('=> void')
          ? FAULTS.filter(([from]) => from.test(line)).map(([from, to]) => ({ file, number, from, to }))
          : [];
      }),
  );
}

/** True when some test fails. */
function isNoticed(tests) {
  const jest = ['--experimental-vm-modules', '--no-warnings', 'node_modules/jest/bin/jest.js', '--bail', '--silent'];
  const env = { ...process.env, PROPERTY_SEED: '20261125' };
  // With its workers: one that runs for ever would go on, and slow down all that is asked after it.
  const { status } = spawnSync('timeout', ['-s', 'KILL', String(MOST_TIME), process.execPath, ...jest, ...tests], {
    cwd: root,
    env,
    stdio: 'ignore',
  });
  return status !== 0;
}

const random = randomNumbers(Number(seed));
const faults = allFaults();
const picked = new Set();
while (picked.size < Math.min(Number(count), faults.length)) picked.add(Math.floor(random() * faults.length));
const survivors = [];
for (const [i, index] of [...picked].entries()) {
  const { file, number, from, to } = faults[index];
  const text = readFileSync(file, 'utf8');
  const lines = text.split('\n');
  const before = lines[number];
  lines[number] = before.replace(from, to);
  const place = `${relative(root, file)}:${number + 1}`;
  try {
    writeFileSync(file, lines.join('\n'));
    // The tests of the same room are quick; only what these do not notice is given to all of the core.
    const noticed = isNoticed([relative(root, dirname(file))]) || (near !== 'near' && isNoticed(['core/src']));
    if (!noticed) survivors.push(place);
    process.stdout.write(
      `${noticed ? 'noticed ' : 'SURVIVED'} ${i + 1}/${picked.size} ${place}: ${before.trim()}  →  ${lines[number].trim()}\n`,
    );
  } finally {
    writeFileSync(file, text);
  }
}
const share = ((100 * survivors.length) / picked.size).toFixed(1);
process.stdout.write(
  `\n${survivors.length} of ${picked.size} faults survived (${share} %) of ${faults.length} that there could be\n`,
);
