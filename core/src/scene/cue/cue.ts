import type { Cue, Scene } from '../scene';
import { readTable, writeTable } from '../table';
import {
  formatTimecode,
  parseTimeEntry,
  describeEntryProblem,
  secondsFromTicks,
  ticksFromSeconds,
  toFrameGrid,
  type Rate,
  type Ticks,
} from '../../basics/time';

/** Cues in order of time; of those at one time, as they were. */
export function sortCues(cues: readonly Cue[]): Cue[] {
  return [...cues].sort((a, b) => a.at - b.at);
}

/** A name that no cue has yet: "Cue 4". */
export function freeCueName(cues: readonly Cue[], base = 'Cue'): string {
  const taken = new Set(cues.map(({ name }) => name));
  for (let n = cues.length + 1; ; n++) if (!taken.has(`${base} ${n}`)) return `${base} ${n}`;
}

/** Equal beats: where the first one lies, how far apart, how many. */
export interface Beats {
  readonly first: Ticks;
  readonly interval: Ticks;
  readonly count: number;
}

/** Times of equal beats, each on the nearest frame, so that they never drift. */
export function beatTimes({ first, interval, count }: Beats, rate: Rate): Ticks[] {
  return Array.from({ length: count }, (_, i) => toFrameGrid(Math.round(first + i * interval), rate));
}

const SECONDS_A_MINUTE = 60;

/** Interval of a tempo in beats a minute. */
export function intervalOfTempo(beatsPerMinute: number): Ticks {
  return ticksFromSeconds(SECONDS_A_MINUTE / beatsPerMinute);
}

/** Tempo of taps at scene times: the slope of the straight line through them (least squares); null under two taps. */
export function tempoOfTaps(taps: readonly Ticks[]): number | null {
  const n = taps.length;
  if (n < 2) return null;
  const middle = (n - 1) / 2;
  const mean = taps.reduce((sum, at) => sum + at, 0) / n;
  const over = taps.reduce((sum, at, i) => sum + (i - middle) * (at - mean), 0);
  const under = taps.reduce((sum, _, i) => sum + (i - middle) ** 2, 0);
  const seconds = secondsFromTicks(over / under);
  return seconds > 0 ? SECONDS_A_MINUTE / seconds : null;
}

/** New cues at times, numbered after those that are there; times that have a cue already are left out. */
export function addCues(cues: readonly Cue[], times: readonly Ticks[], newId: () => string, base = 'Cue'): Cue[] {
  const all = [...cues];
  const taken = new Set(cues.map(({ at }) => at));
  for (const at of times) {
    if (taken.has(at)) continue;
    taken.add(at);
    all.push({ id: newId(), name: freeCueName(all, base), at });
  }
  return sortCues(all);
}

/** The nearest cue within a reach; the time itself where there is none. */
export function snapToCue(cues: readonly Cue[], at: Ticks, reach: Ticks): Ticks {
  let [best, distance] = [at, reach];
  for (const cue of cues) {
    const away = Math.abs(cue.at - at);
    if (away <= distance) [best, distance] = [cue.at, away];
  }
  return best;
}

/** Cues as CSV with the columns name, timecode and seconds. */
export function cuesToCsv({ cues, rate }: Pick<Scene, 'cues' | 'rate'>): string {
  const rows = sortCues(cues).map(({ name, at }) => [
    name,
    formatTimecode(at, rate),
    String(Number(secondsFromTicks(at).toFixed(6))),
  ]);
  return writeTable({ columns: ['name', 'timecode', 'seconds'], rows });
}

/** Cues that were read from text, or what is wrong with it. */
export type CuesResult =
  { readonly ok: true; readonly cues: readonly Cue[] } | { readonly ok: false; readonly message: string };

function columnOf(columns: readonly string[], wanted: readonly string[]): number {
  return columns.findIndex((column) => wanted.includes(column.trim().toLocaleLowerCase('en')));
}

/** Reads cues from CSV: a column of names, and one of times (timecode as written, or seconds). */
export function cuesFromCsv(text: string, rate: Rate, newId: () => string): CuesResult {
  const read = readTable(text);
  if (!read.ok) return read;
  const { columns, rows } = read.table;
  const name = columnOf(columns, ['name', 'cue', 'label', 'marker']);
  const seconds = columnOf(columns, ['seconds', 'sec', 's']);
  const time = columnOf(columns, ['timecode', 'time', 'at', 'start']);
  if (time < 0 && seconds < 0) {
    return { ok: false, message: 'No column is called timecode, time or seconds. Name one so, and try again.' };
  }
  const cues: Cue[] = [];
  for (const [i, row] of rows.entries()) {
    const cell = time >= 0 && row[time] !== '' ? row[time] : `${row[seconds] ?? ''}s`;
    const entry = parseTimeEntry(cell, rate);
    if (!entry.ok)
      return { ok: false, message: `Row ${i + 2}: “${cell}”. ${describeEntryProblem(entry.problem, rate)}` };
    const label = name < 0 ? '' : row[name].slice(0, 200);
    cues.push({ id: newId(), name: label || `Cue ${i + 1}`, at: toFrameGrid(entry.entry.ticks, rate) });
  }
  return { ok: true, cues: sortCues(cues) };
}
