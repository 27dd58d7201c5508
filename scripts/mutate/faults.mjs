import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

/** Data and generated code say nothing that a fault could turn round. */
const LEFT_OUT = /(\.test\.ts|index\.ts|\.generated\.\w+|\/starter\/|\/demo\/|\/testing\/)/;

/** What is put in whose place. */
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
  [/return (?!undefined|null|true|false)[\w.]+;$/, 'return undefined as never;'],
];

/** Paths below a folder, from `root`. */
export function filesBelow(root, folder) {
  return readdirSync(join(root, folder), { withFileTypes: true }).flatMap((entry) => {
    const path = `${folder}/${entry.name}`;
    return entry.isDirectory() ? filesBelow(root, path) : [path];
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

/** Every fault that could be planted in the files whose paths contain `wanted`: the file, the line from 0, the whole text with it. */
export function allFaults(root, wanted) {
  const files = filesBelow(root, 'core/src').filter(
    (path) => path.endsWith('.ts') && !LEFT_OUT.test(path) && path.includes(wanted),
  );
  return files.flatMap((file) => {
    const lines = readFileSync(join(root, file), 'utf8').split('\n');
    return lines.flatMap((line, number) => {
      const isCode = !/^\s*(\/\/|\*|\/\*|\||import|export (type|interface)|(\{ )?readonly|\w+\?: )/.test(line);
      if (!isCode || line.includes('=> void')) return [];
      return FAULTS.filter(([from]) => from.test(line)).map(([from, to]) => {
        const planted = line.replace(from, to);
        const text = lines.with(number, planted).join('\n');
        return { file, number, text, said: `${line.trim()}  →  ${planted.trim()}` };
      });
    });
  });
}

/** Some of them, by chance; the same for the same seed. */
export function picked(faults, count, seed) {
  const random = randomNumbers(seed);
  const places = new Set();
  while (places.size < Math.min(count, faults.length)) places.add(Math.floor(random() * faults.length));
  return [...places].map((place) => faults[place]);
}
