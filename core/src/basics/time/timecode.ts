import { nearestFrame, nominalFps, ticksFromFrame, type Rate } from './rate';
import type { Ticks } from './ticks';

/**
 * Frame labels dropped at the start of each minute not divisible by ten: 2 at 29.97, 4 at 59.94, else 0.
 * Source: SMPTE ST 12-1, drop-frame compensation.
 */
export function droppedLabels(rate: Rate): number {
  const isDropFamily = rate.den === 1001 && rate.num % 30000 === 0;
  return isDropFamily ? (rate.num / 30000) * 2 : 0;
}

/** Digits of the frame part: 2, or 3 where a second counts more than 100 frames. */
function frameDigits(rate: Rate): number {
  return Math.max(2, String(nominalFps(rate) - 1).length);
}

/** Frame count to the number that its label would have without dropping. Source: SMPTE ST 12-1. */
function labelNumber(frame: number, rate: Rate): number {
  const dropped = droppedLabels(rate);
  if (dropped === 0) return frame;
  const perMinute = nominalFps(rate) * 60 - dropped;
  const perTenMinutes = perMinute * 10 + dropped;
  const tens = Math.floor(frame / perTenMinutes);
  const rest = frame % perTenMinutes;
  const minutes = rest < dropped ? 0 : Math.floor((rest - dropped) / perMinute);
  return frame + dropped * (9 * tens + minutes);
}

function pad(value: number, digits: number): string {
  return String(value).padStart(digits, '0');
}

/**
 * Timecode label of a frame number: "HH:MM:SS:FF", with ";" before the frames at drop-frame rates, and "-" in front
 * of a negative one.
 */
export function formatFrameTimecode(frame: number, rate: Rate): string {
  if (frame < 0) return '-' + formatFrameTimecode(-frame, rate);
  const base = nominalFps(rate);
  const label = labelNumber(frame, rate);
  const seconds = Math.floor(label / base);
  const separator = droppedLabels(rate) > 0 ? ';' : ':';
  const clock = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60].map((part) => pad(part, 2));
  return clock.join(':') + separator + pad(label % base, frameDigits(rate));
}

/** Timecode label of the frame nearest to a time. */
export function formatTimecode(ticks: Ticks, rate: Rate): string {
  return formatFrameTimecode(nearestFrame(ticks, rate), rate);
}

/** The short form used in tables: "0:10", "1:02:10" (minutes, seconds, frames), of the nearest frame. */
export function formatShort(ticks: Ticks, rate: Rate): string {
  const [whole, sign] = ticks < 0 ? [-ticks, '-'] : [ticks, ''];
  const parts = formatTimecode(whole, rate).split(/[:;]/);
  const firstShown = Number(parts[0]) > 0 ? 0 : Number(parts[1]) > 0 ? 1 : 2;
  const shown = parts.slice(firstShown);
  shown[0] = String(Number(shown[0]));
  return sign + shown.join(':');
}

/** Why a timecode cannot be read. */
export type TimecodeProblem =
  | { readonly code: 'not-timecode' }
  | { readonly code: 'part-too-large'; readonly part: 'minutes' | 'seconds' | 'frames'; readonly most: number }
  | { readonly code: 'dropped-label'; readonly label: string; readonly next: string };

/** A timecode in ticks, or why it cannot be read. */
export type TimecodeResult =
  { readonly ok: true; readonly ticks: Ticks } | { readonly ok: false; readonly problem: TimecodeProblem };

function tooLarge(part: 'minutes' | 'seconds' | 'frames', most: number): TimecodeResult {
  return { ok: false, problem: { code: 'part-too-large', part, most } };
}

/**
 * Time of a label given in parts.
 * Fails on parts out of range and on the labels that drop-frame counting leaves out. Source: SMPTE ST 12-1.
 */
export function ticksFromParts(
  hours: number,
  minutes: number,
  seconds: number,
  frames: number,
  rate: Rate,
): TimecodeResult {
  const base = nominalFps(rate);
  if (minutes > 59) return tooLarge('minutes', 59);
  if (seconds > 59) return tooLarge('seconds', 59);
  if (frames >= base) return tooLarge('frames', base - 1);
  const dropped = droppedLabels(rate);
  const totalMinutes = hours * 60 + minutes;
  if (minutes % 10 !== 0 && seconds === 0 && frames < dropped) {
    const at = (count: number): string => `${pad(hours, 2)}:${pad(minutes, 2)}:00;${pad(count, 2)}`;
    return { ok: false, problem: { code: 'dropped-label', label: at(frames), next: at(dropped) } };
  }
  const label = (totalMinutes * 60 + seconds) * base + frames;
  const frame = label - dropped * (totalMinutes - Math.floor(totalMinutes / 10));
  return { ok: true, ticks: ticksFromFrame(frame, rate) };
}

/**
 * Reads "MM:SS:FF", "SS:FF" or "HH:MM:SS:FF", with ":" or ";" between the parts and an optional sign.
 * Whether labels are dropped follows from the rate, not from the separator.
 */
export function parseTimecode(text: string, rate: Rate): TimecodeResult {
  const match = /^([+-]?)(\d{1,3}(?:[:;]\d{1,3}){1,3})$/.exec(text.trim());
  if (!match) return { ok: false, problem: { code: 'not-timecode' } };
  const parts = match[2].split(/[:;]/).map(Number);
  const [hours, minutes, seconds, frames] = [0, 0, 0, 0, ...parts].slice(-4);
  const result = ticksFromParts(hours, minutes, seconds, frames, rate);
  return result.ok && match[1] === '-' ? { ok: true, ticks: 0 - result.ticks } : result;
}
