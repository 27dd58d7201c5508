import {
  createProgress,
  describeEntryProblem,
  formatFrameTimecode,
  frameTicks,
  parseEasing,
  parseRate,
  parseTimeEntry,
  secondsFromTicks,
  type Rate,
} from '@wexikine/core';
import { Failure } from '../failure';

/** A frame rate given on the command line. */
export function readRate(text: string): Rate {
  const rate = parseRate(text);
  if (rate) return rate;
  throw new Failure(`--rate “${text}”: This is not a frame rate. Give one such as 25, 29.97 or 30000/1001.`);
}

/** `wexikine timecode`: a typed time as timecode, frames, seconds and ticks. */
export function timecodeCommand(text: string, rateText: string): string {
  const rate = readRate(rateText);
  const result = parseTimeEntry(text, rate);
  if (!result.ok) throw new Failure(`“${text}”: ${describeEntryProblem(result.problem, rate)}`);
  const { ticks, frame, rounding, relative } = result.entry;
  const lines = [
    `timecode  ${formatFrameTimecode(frame, rate)}`,
    `frame     ${frame}`,
    `seconds   ${secondsFromTicks(ticks)}`,
    `ticks     ${ticks}`,
  ];
  if (rounding !== 0) lines.push(`rounding  ${Number((rounding / frameTicks(rate)).toFixed(6))} of a frame`);
  if (relative) lines.push('relative  an offset from the value that stands');
  return `${lines.join('\n')}\n`;
}

/** `wexikine curve`: progress of an easing at shares of its time. */
export function curveCommand(text: string, at: string): string {
  const parsed = parseEasing(text);
  if (!parsed.ok) throw new Failure(parsed.message);
  if (parsed.easing.type === 'handles') throw new Failure('Free handles have no progress of their own.');
  const progress = createProgress(parsed.easing);
  const lines = at.split(',').map((part) => {
    const share = Number(part);
    if (part.trim() === '' || !Number.isFinite(share))
      throw new Failure(`--at “${part}”: Give numbers such as 0,0.25,1.`);
    return `${share},${progress(share)}`;
  });
  return `${['share,progress', ...lines].join('\n')}\n`;
}
