/** Median time of a piece of work in milliseconds; it runs for a while first, so that it is compiled. */
export async function median(work: () => unknown, rounds = 15, warmUp = 3): Promise<number> {
  for (let i = 0; i < warmUp; i++) await work();
  const times: number[] = [];
  for (let i = 0; i < rounds; i++) {
    const began = performance.now();
    await work();
    times.push(performance.now() - began);
  }
  return times.sort((a, b) => a - b)[Math.floor(rounds / 2)];
}

/** Medians of two pieces of work that take turns, so that whatever else the machine does meets both alike. */
export function mediansInTurn(one: () => unknown, other: () => unknown, rounds = 31): [number, number] {
  const times: [number[], number[]] = [[], []];
  for (let round = 0; round < rounds + 5; round++) {
    [one, other].forEach((work, i) => {
      const began = performance.now();
      work();
      if (round >= 5) times[i].push(performance.now() - began);
    });
  }
  const [a, b] = times.map((list) => list.sort((x, y) => x - y)[Math.floor(rounds / 2)]);
  return [a, b];
}

const failures: string[] = [];

/** Prints a figure with what is wanted of it. */
export function report(name: string, figure: string, wanted: string, isMet: boolean): void {
  process.stdout.write(`${isMet ? 'ok ' : 'NO '} ${name.padEnd(58)} ${figure.padStart(22)}   wanted: ${wanted}\n`);
  if (!isMet) failures.push(name);
}

/** Exit code: 1 where something was not met. */
export function verdict(): number {
  process.stdout.write(failures.length === 0 ? '\nall met\n' : `\nnot met: ${failures.join('; ')}\n`);
  return failures.length === 0 ? 0 : 1;
}
