import { cpSync, mkdtempSync, readFileSync, symlinkSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { root } from '../steps.mjs';

/**
 * A process that runs unit tests over and over in a copy of its own, so that the runner starts once. It is told a file,
 * the text to try in its place and some tests; it answers whether one failed, or which lines ran where it is counting.
 */
const require = createRequire(join(root, 'package.json'));
const { runCLI } = require('@jest/core');
const SILENT = [join(import.meta.dirname, 'silent.cjs')];
const [from, isCounting] = process.argv.slice(2);
const copy = mkdtempSync(`${from}-`);
process.on('disconnect', () => process.exit());
cpSync(from, copy, { recursive: true });
symlinkSync(join(root, 'node_modules'), join(copy, 'node_modules'));
const config = {
  ...require(join(copy, 'jest.config.cjs')),
  rootDir: copy,
  roots: [join(copy, 'core/src')],
  globalSetup: undefined,
  maxWorkers: undefined,
};

async function run(tests) {
  const asked = { config: JSON.stringify(config), _: tests.map((path) => join(copy, path)), runTestsByPath: true };
  if (isCounting) Object.assign(asked, { coverage: true, coverageReporters: ['none'] });
  const { results } = await runCLI(
    { ...asked, runInBand: true, silent: true, reporters: SILENT, watchman: false, $0: '' },
    [copy],
  );
  return results;
}

process.on('message', async ({ file, text, tests }) => {
  if (isCounting) {
    const { success, coverageMap } = await run(tests);
    return process.send({ isNoticed: !success, ran: linesOf(coverageMap) });
  }
  const path = join(copy, file);
  const before = readFileSync(path, 'utf8');
  writeFileSync(path, text);
  const { success } = await run(tests);
  writeFileSync(path, before);
  process.send({ isNoticed: !success });
});

/** By file, the lines (from 0) whose innermost statement ran. */
function linesOf(coverage) {
  const ran = {};
  for (const path of coverage.files()) {
    const { statementMap, s } = coverage.fileCoverageFor(path).toJSON();
    const spans = Object.entries(statementMap).map(([id, { start, end }]) => [start.line, end.line, s[id] > 0]);
    const lines = new Map();
    for (const [from, to, isRun] of spans.sort((a, b) => b[1] - b[0] - (a[1] - a[0]))) {
      for (let line = from; line <= to; line += 1)
        lines.set(line - 1, isRun || (from === to && lines.get(line - 1) === true));
    }
    const those = [...lines].filter(([, isRun]) => isRun).map(([line]) => line);
    if (those.length > 0) ran[path.slice(copy.length + 1)] = those;
  }
  return ran;
}

process.send({ isReady: true });
