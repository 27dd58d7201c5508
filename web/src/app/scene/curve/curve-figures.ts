import {
  channelOf,
  formatChannelValue,
  isDialLayer,
  formatShort,
  frameTicks,
  greatestStep,
  perUnit,
  TICKS_PER_SECOND,
  trackSpeed,
  type ChannelId,
  type FrameStep,
  type PickedCurves,
  type Rate,
  type Ticks,
} from '@wexikine/core';
import type { TimeWindow } from '../sheet/time-window';
import type { CurveLine } from './curve-lines';

/** The greatest step of a frame in what is seen, in words, and the time to go to; null where nothing moves. */
export function stepFigure(
  lines: readonly CurveLine[],
  { from, span }: TimeWindow,
  rate: Rate,
): { readonly words: string; readonly at: Ticks } | null {
  const own = lines.filter(({ isOwn }) => isOwn);
  const across = own.filter(({ channel }) => channel === 'position.x' || channel === 'position.y');
  const together =
    across.length === 2
      ? [across, ...own.filter((line) => !across.includes(line)).map((one) => [one])]
      : own.map((one) => [one]);
  let best: (FrameStep & { readonly channel: ChannelId; readonly share: number }) | null = null;
  for (const group of together) {
    const step = greatestStep(
      group.map(({ drawn }) => drawn),
      frameTicks(rate),
      Math.max(0, from),
      from + span,
    );
    const share = step.by / TYPICAL_STEP[channelOf(group[0].channel).unit];
    if (step.by > 0 && (!best || share > best.share)) best = { ...step, channel: group[0].channel, share };
  }
  if (!best) return null;
  const { channel, by, at } = best;
  return { words: `at most ${formatChannelValue(channel, by)} in a frame, at ${formatShort(at, rate)}`, at };
}

/** Steps of a frame that are felt alike, so that the one that matters is told. */
const TYPICAL_STEP = { px: 20, deg: 5, share: 0.1, number: 0.1 } as const;

/** A speed in words: "312 px/s". */
export function speedWords(channel: ChannelId, aTick: number): string {
  return `${formatChannelValue(channel, aTick * TICKS_PER_SECOND)}/s`;
}

/** How fast each own line goes at a time. */
export function nowWords(lines: readonly CurveLine[], time: Ticks): string {
  const words = lines
    .filter(({ isOwn }) => isOwn)
    .slice(0, 3)
    .map(
      ({ layer, channel, drawn }) =>
        `${isDialLayer(layer.id) ? layer.name : channelOf(channel).label} ${speedWords(channel, trackSpeed(drawn, time))}`,
    );
  return words.length === 0 ? '' : `now ${words.join(', ')}`;
}

/** A number in a field of many: two decimals at most, empty where they differ. */
export function fieldText(value: number | null, by: number): string {
  return value === null ? '' : String(Number((value * by).toFixed(2)) + 0);
}

/** What a speed of a channel is typed in: units a second. */
export function speedUnit(channel: ChannelId): { readonly by: number; readonly words: string } {
  const { unit } = channelOf(channel);
  const words = { px: 'px/s', deg: '°/s', share: '%/s', number: '/s' }[unit];
  return { by: TICKS_PER_SECOND * perUnit(channel), words };
}

/** What the picked keys' curves are, in words; what was put on from the library says so. */
export function curveWords({ ease, link, segments }: PickedCurves): string {
  if (segments === 0) return 'nothing follows';
  if (link) return `${link.name}, revision ${link.revision}${link.reversed === true ? ', backwards' : ''}`;
  if (!ease) return 'different curves';
  const words = {
    hold: 'hold',
    linear: 'even',
    bezier: 'Bézier',
    handles: 'free handles',
    points: 'points',
    steps: 'steps',
    spring: 'spring',
  };
  return words[ease.type];
}
