/** Cells that depend on each other in a circle. */
export type CellProblem = readonly number[];

/** In which order cells can be worked out. */
export interface CellOrder {
  /** Each cell's level: it depends on cells of lower levels alone. */
  readonly levels: ReadonlyMap<number, number>;
  /** Cells in circles, which cannot be worked out. */
  readonly broken: ReadonlySet<number>;
  readonly problems: readonly CellProblem[];
}

interface Visit {
  readonly cell: number;
  readonly next: Iterator<number>;
}

/**
 * Puts cells in order once. Strongly connected parts are found by Tarjan's algorithm (R. Tarjan, "Depth-first search and
 * linear graph algorithms", 1972), without recursion: a chain may be long. What is no cell depends on nothing.
 */
export function orderCells(cells: Iterable<number>, dependsOn: (cell: number) => readonly number[]): CellOrder {
  const all = new Set(cells);
  const index = new Map<number, number>();
  const low = new Map<number, number>();
  const levels = new Map<number, number>();
  const broken = new Set<number>();
  const problems: CellProblem[] = [];
  const path: number[] = [];
  const onPath = new Set<number>();
  const visits: Visit[] = [];
  const known = new Map<number, readonly number[]>();
  const edges = (cell: number): readonly number[] => {
    const before = known.get(cell);
    if (before) return before;
    const list = dependsOn(cell).filter((other) => all.has(other));
    known.set(cell, list);
    return list;
  };
  const enter = (cell: number): void => {
    index.set(cell, index.size);
    low.set(cell, index.get(cell) as number);
    path.push(cell);
    onPath.add(cell);
    visits.push({ cell, next: edges(cell)[Symbol.iterator]() });
  };
  const lower = (cell: number, to: number): void => void low.set(cell, Math.min(low.get(cell) as number, to));
  const leave = (cell: number): void => {
    if (low.get(cell) !== index.get(cell)) return;
    const part = path.splice(path.lastIndexOf(cell));
    for (const one of part) onPath.delete(one);
    const isCircle = part.length > 1 || edges(cell).includes(cell);
    if (isCircle) {
      for (const one of part) broken.add(one);
      problems.push(part.reverse());
      return;
    }
    // What it depends on was left before it.
    levels.set(
      cell,
      edges(cell).reduce((most, other) => Math.max(most, (levels.get(other) ?? -1) + 1), 0),
    );
  };
  for (const start of all) {
    if (!index.has(start)) enter(start);
    while (visits.length > 0) {
      const { cell, next } = visits[visits.length - 1];
      const step = next.next();
      if (step.done === true) {
        visits.pop();
        leave(cell);
        const above = visits.at(-1);
        if (above) lower(above.cell, low.get(cell) as number);
      } else if (!index.has(step.value)) enter(step.value);
      else if (onPath.has(step.value)) lower(cell, index.get(step.value) as number);
    }
  }
  return { levels, broken, problems };
}
