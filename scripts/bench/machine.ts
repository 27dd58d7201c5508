import { median, report } from './measure';

/** Sorts numbers, and writes and reads them as JSON: work that has nothing to do with the application, and never changes. */
function fixedWork(): number {
  const numbers = Array.from({ length: 60_000 }, (_, i) => (i * 2_654_435_761) % 1_000_003);
  numbers.sort((a, b) => a - b);
  const read = JSON.parse(JSON.stringify(numbers.map((value) => ({ value, half: value / 2 })))) as { half: number }[];
  return read.reduce((sum, { half }) => sum + half, 0);
}

/** How quick the machine is, before and after all else: shared ones change by half, and times mean little without it. */
export async function reportMachine(when: 'before' | 'after'): Promise<void> {
  report(
    `the machine itself, ${when} all of it: a fixed piece of work`,
    `${(await median(fixedWork)).toFixed(0)} ms`,
    'for comparison',
    true,
  );
}
