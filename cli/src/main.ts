import { Command } from 'commander';
import { statSync } from 'node:fs';
import { Worker } from 'node:worker_threads';
import { exportCommand } from './commands/export';
import { formulaCommand } from './commands/formula';
import { packCommand, type PackOptions } from './commands/pack';
import { applyCommand, planCommand, type RunOptions } from './commands/run';
import { sample, type SampleOptions } from './commands/sample';
import { curveCommand, timecodeCommand } from './commands/time-and-curve';
import { validateCommand } from './commands/validate';
import { Failure } from './failure';
import { writeFile, writeText } from './files';

const program = new Command('wexikine')
  .description('Animation presets for many layers, over the same core as the application.')
  .showHelpAfterError('(wexikine --help lists the commands)');

function now(): string {
  return new Date().toISOString();
}

function collect(value: string, gathered: string[]): string[] {
  return [...gathered, value];
}

program
  .command('sample')
  .description('channel values of a scene at given times')
  .argument('<scene>', 'scene file (JSON, or a zip with its pictures)')
  .requiredOption('--at <times>', 'times, such as 0f,8f,1s')
  .option('--layers <names>', 'names or ids, with commas between')
  .option('--channels <names>', 'channels, with commas between; without it all that are in use')
  .option('--format <format>', 'csv or json', 'csv')
  .action((scene: string, options: SampleOptions) => writeText(undefined, sample(scene, options)));

program
  .command('plan')
  .description('what a recipe would do to a scene; changes nothing')
  .argument('<scene>', 'scene file (JSON, or a zip with its pictures)')
  .argument('<recipe>', 'recipe file (JSON)')
  .option('--library <file>', 'library items besides the starter library')
  .option('--format <format>', 'text or json', 'text')
  .option('--by <name>', 'who applies it', 'wexikine')
  .action((scene: string, recipe: string, options: RunOptions) =>
    writeText(undefined, planCommand(scene, recipe, options, now())),
  );

program
  .command('apply')
  .description('a scene with a recipe applied')
  .argument('<scene>', 'scene file (JSON, or a zip with its pictures)')
  .argument('<recipe>', 'recipe file (JSON)')
  .option('--library <file>', 'library items besides the starter library')
  .option('--by <name>', 'who applies it', 'wexikine')
  .option('-o, --out <file>', 'where to write the scene; without it to standard output')
  .action((scene: string, recipe: string, options: RunOptions & { out?: string }) => {
    const { contents, report } = applyCommand(scene, recipe, options, now());
    writeText(options.out, contents);
    process.stderr.write(report);
  });

program
  .command('curve')
  .description('progress of an easing, such as "cubic-bezier(0.3, 0, 0.2, 1)"')
  .argument('<easing>', 'linear, hold, cubic-bezier(…), linear(…) or steps(…)')
  .option('--at <shares>', 'shares of its time', '0,0.25,0.5,0.75,1')
  .action((easing: string, { at }: { at: string }) => writeText(undefined, curveCommand(easing, at)));

program
  .command('timecode')
  .description('a time as timecode, frames, seconds and ticks')
  .argument('<text>', 'such as 1:15, 00:00:01:15, 8f, 0.5s or 250ms')
  .option('--rate <rate>', 'frame rate, such as 25 or 30000/1001', '25')
  .action((text: string, { rate }: { rate: string }) => writeText(undefined, timecodeCommand(text, rate)));

program
  .command('formula')
  .description('the value of a formula')
  .argument('<text>', 'such as "rest × (1 + @over)"')
  .option('--with <name=value>', 'a parameter or a name; may be given again', collect, [])
  .option('--rate <rate>', 'frame rate that f counts in', '25')
  .action((text: string, options: { with: string[]; rate: string }) =>
    writeText(undefined, formulaCommand(text, options.with, options.rate)),
  );

program
  .command('export')
  .description('a scene as a page that plays in a browser, or as JSON')
  .argument('<scene>', 'scene file (JSON, or a zip with its pictures)')
  .requiredOption('--to <format>', 'css or json')
  .option('-o, --out <file>', 'where to write it; without it to standard output')
  .action((scene: string, { to, out }: { to: string; out?: string }) => writeText(out, exportCommand(scene, to)));

program
  .command('pack')
  .description('library items, with all that they need, as a pack (zip)')
  .argument('[files...]', 'items, lists of them, libraries or packs; without any the starter library')
  .option('--items <names>', 'ids or names, with commas between; without it all')
  .requiredOption('-o, --out <file>', 'where to write the pack')
  .action((files: string[], { out, ...options }: PackOptions & { out: string }) => {
    const { bytes, report } = packCommand(files, options);
    writeFile(out, bytes);
    process.stderr.write(report);
  });

program
  .command('validate')
  .description('checks a scene, a library item, a recipe or a pack')
  .argument('<file>', 'JSON or zip file')
  .option('--library <file>', 'of a pack: the library that it shall go into')
  .action((file: string, { library }: { library?: string }) => writeText(undefined, validateCommand(file, library)));

/**
 * A word after a command that begins with a minus and a digit, such as the time -1:00, is no option but what is meant;
 * commander would ask for "--" before it.
 */
function withNegatives(args: readonly string[]): string[] {
  const at = args.findIndex((arg, i) => i > 0 && /^-[\d.]/.test(arg) && !args[i - 1].startsWith('--'));
  if (at < 0 || args.includes('--')) return [...args];
  // What is not an option comes last, so that everything after "--" is taken as it stands.
  return [...args.slice(0, at), ...args.slice(at + 1), '--', args[at]];
}

/** Says that something takes long, and how to stop it. Without a thread of its own nothing could be said meanwhile. */
function sayWhenLong(): void {
  const script = `const { workerData } = require('node:worker_threads');
    setTimeout(() => require('node:fs').writeSync(2, workerData), ${LONG_MS});`;
  new Worker(script, {
    eval: true,
    workerData: 'This takes a while. Ctrl-C stops it; nothing is written before it is done.\n',
  }).unref();
}

/** From this size on of what a command reads it may take long. */
const LONG_BYTES = 4_000_000;
const LONG_MS = 2_000;

function isLarge(path: string): boolean {
  try {
    return statSync(path).size > LONG_BYTES;
  } catch {
    return false;
  }
}

const args = process.argv.slice(2);
try {
  if (args.some(isLarge)) sayWhenLong();
  program.parse(withNegatives(args), { from: 'user' });
} catch (error) {
  if (!(error instanceof Failure)) throw error;
  process.stderr.write(`${error.message}\n`);
  process.exitCode = 1;
}
