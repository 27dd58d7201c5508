import { frameTicks, nearestFrame, nominalFps, ticksFromFrame, type Rate } from './rate';
import { MOST_TICKS, TICKS_PER_SECOND, type Ticks } from './ticks';
import { parseTimecode, type TimecodeProblem } from './timecode';

/** A time as somebody typed it. */
export interface TimeEntry {
  /** The time exactly as typed. */
  readonly ticks: Ticks;
  /** True when it began with + or −: it is then an offset from the value that stands. */
  readonly relative: boolean;
  /** Nearest frame to `ticks`. */
  readonly frame: number;
  /** `ticks` minus the time of that frame; 0 when it lies on the frame grid. */
  readonly rounding: Ticks;
}

/** Why a typed time cannot be read. */
export type EntryProblem =
  { readonly code: 'empty' } | { readonly code: 'not-a-time' } | { readonly code: 'too-large' } | TimecodeProblem;

/** A typed time in ticks, or why it cannot be read. */
export type EntryResult =
  { readonly ok: true; readonly entry: TimeEntry } | { readonly ok: false; readonly problem: EntryProblem };

const QUANTITY = /^([+-]?)\s*(\d+(?:\.\d+)?|\.\d+)\s*(f|frames?|s|sec|seconds?|ms|min)?$/i;

function unitTicks(unit: string, rate: Rate): Ticks {
  switch (unit[0]) {
    case 's':
      return TICKS_PER_SECOND;
    case 'm':
      return unit === 'ms' ? TICKS_PER_SECOND / 1000 : TICKS_PER_SECOND * 60;
    default:
      return frameTicks(rate);
  }
}

/** A decimal number of units to the nearest tick, halves up, without a rounding error on the way. */
function exactTicks(decimal: string, unit: Ticks): Ticks | null {
  const [whole, part = ''] = decimal.split('.');
  const scale = 10n ** BigInt(part.length);
  const ticks = (BigInt(whole + part) * BigInt(unit) * 2n + scale) / (scale * 2n);
  return ticks <= BigInt(MOST_TICKS) ? Number(ticks) : null;
}

/** Longer numbers are no times that anybody means, and each digit costs. */
const MOST_DIGITS = 40;

function entryOf(ticks: Ticks, relative: boolean, rate: Rate): EntryResult {
  const frame = nearestFrame(ticks, rate);
  return { ok: true, entry: { ticks, relative, frame, rounding: ticks - ticksFromFrame(frame, rate) } };
}

/**
 * Reads what people type for a time: `1:15`, `00:00:01:15`, `8f`, `0.5s`, `250ms`, `2min`, a bare number (frames),
 * and with a sign in front an offset (`+8f`, `-1s`, `-0:05`).
 */
export function parseTimeEntry(text: string, rate: Rate): EntryResult {
  const trimmed = text.trim().replace(/−/g, '-');
  if (trimmed === '') return { ok: false, problem: { code: 'empty' } };
  const relative = /^[+-]/.test(trimmed);
  const quantity = QUANTITY.exec(trimmed);
  if (quantity) {
    const unit = unitTicks((quantity[3] ?? 'f').toLowerCase(), rate);
    const size = quantity[2].length > MOST_DIGITS ? null : exactTicks(quantity[2], unit);
    if (size === null) return { ok: false, problem: { code: 'too-large' } };
    return entryOf(quantity[1] === '-' ? 0 - size : size, relative, rate);
  }
  if (!/[:;]/.test(trimmed)) return { ok: false, problem: { code: 'not-a-time' } };
  const label = parseTimecode(trimmed, rate);
  return label.ok ? entryOf(label.ticks, relative, rate) : label;
}

/** Applies an entry to the value that stands: an absolute one replaces it, a relative one is added. */
export function applyTimeEntry(entry: TimeEntry, standing: Ticks): Ticks {
  return entry.relative ? standing + entry.ticks : entry.ticks;
}

const MOST_SECONDS = Math.floor(MOST_TICKS / TICKS_PER_SECOND);

/** What is wrong with a typed time and what to do, as a sentence. */
export function describeEntryProblem(problem: EntryProblem, rate: Rate): string {
  switch (problem.code) {
    case 'empty':
      return 'No time was given. Type one such as 1:15, 8f or 0.5s.';
    case 'not-a-time':
    case 'not-timecode':
      return 'This is not a time. Type one such as 1:15, 00:00:01:15, 8f, 0.5s or 250ms.';
    case 'too-large':
      return `That is longer than can be held exactly. The longest time is ${MOST_SECONDS} s, about 147 days.`;
    case 'part-too-large':
      return problem.part === 'frames'
        ? `At ${nominalFps(rate)} frames a second the last frame of a second is ${problem.most}. Lower the frames or write them as ${problem.most + 1}f.`
        : `There are no more than ${problem.most} ${problem.part} here. Carry the rest over to the part before.`;
    case 'dropped-label':
      return `${problem.label} does not exist in drop-frame timecode (SMPTE ST 12-1). The next frame is ${problem.next}.`;
  }
}

/** Text of a duration for people: "20 f", or with the exact remainder "7.92 f". */
export function formatFrames(ticks: Ticks, rate: Rate): string {
  return `${Number((ticks / frameTicks(rate)).toFixed(2))} f`;
}
