import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  applyTimeEntry,
  describeEntryProblem,
  formatFrames,
  formatFrameTimecode,
  formatRate,
  formatShort,
  fps,
  frameTicks,
  LISTED_RATES,
  nearestFrame,
  parseRate,
  parseTimecode,
  parseTimeEntry,
  rateSchema,
  ticksFromFrame,
  ticksFromSeconds,
  TICKS_PER_SECOND,
} from '.';

const NTSC = { num: 30000, den: 1001 };
const NTSC_DOUBLE = { num: 60000, den: 1001 };
const PAL = { num: 25, den: 1 };
const anyRate = fc.constantFrom(...LISTED_RATES);

function entry(text: string, rate = PAL) {
  const result = parseTimeEntry(text, rate);
  if (!result.ok) throw new Error(result.problem.code);
  return result.entry;
}

describe('frame rates', () => {
  test('a frame is a whole number of ticks at every listed rate', () => {
    for (const rate of LISTED_RATES) expect(Number.isInteger(frameTicks(rate))).toBe(true);
  });

  test('a rate whose frame is no whole number of ticks is refused with a mend', () => {
    const parsed = rateSchema.safeParse({ num: 17, den: 1000 });
    expect(parsed.success).toBe(false);
    expect(parsed.error?.issues[0].message).toContain('30000/1001');
  });

  test('rates read back from what is shown', () => {
    for (const rate of LISTED_RATES) expect(parseRate(formatRate(rate))).toEqual(rate);
    expect(parseRate('30000/1001')).toEqual(NTSC);
    expect(parseRate('fast')).toBeNull();
  });
});

describe('timecode', () => {
  // SMPTE ST 12-1: labels 00 and 01 are dropped each minute but every tenth; known counts follow from it.
  test.each([
    [0, '00:00:00;00'],
    [1799, '00:00:59;29'],
    [1800, '00:01:00;02'],
    [17981, '00:09:59;29'],
    [17982, '00:10:00;00'],
    [107892, '01:00:00;00'],
    [2589407, '23:59:59;29'],
  ])('frame %i at 29.97 drop-frame is %s (SMPTE ST 12-1)', (frame, label) => {
    expect(formatFrameTimecode(frame, NTSC)).toBe(label);
    expect(parseTimecode(label, NTSC)).toEqual({ ok: true, ticks: ticksFromFrame(frame, NTSC) });
  });

  test('59.94 drops four labels a minute (SMPTE ST 12-1)', () => {
    expect(formatFrameTimecode(3599, NTSC_DOUBLE)).toBe('00:00:59;59');
    expect(formatFrameTimecode(3600, NTSC_DOUBLE)).toBe('00:01:00;04');
    expect(formatFrameTimecode(215784, NTSC_DOUBLE)).toBe('01:00:00;00');
  });

  test('a label that drop-frame leaves out is refused and the next frame is named', () => {
    const result = parseTimecode('00:01:00;01', NTSC);
    expect(result).toEqual({
      ok: false,
      problem: { code: 'dropped-label', label: '00:01:00;01', next: '00:01:00;02' },
    });
    expect(!result.ok && describeEntryProblem(result.problem, NTSC)).toContain('00:01:00;02');
    expect(parseTimecode('00:10:00;01', NTSC).ok).toBe(true);
  });

  test('an hour of drop-frame timecode is within 4 ms of an hour of the clock (SMPTE ST 12-1)', () => {
    const hour = parseTimecode('01:00:00;00', NTSC);
    expect(hour.ok && Math.abs(hour.ticks / TICKS_PER_SECOND - 3600)).toBeLessThan(0.004);
  });

  test('frames to label and back is the same frame at every listed rate', () => {
    fc.assert(
      fc.property(anyRate, fc.integer({ min: 0, max: 10_000_000 }), (rate, frame) => {
        const result = parseTimecode(formatFrameTimecode(frame, rate), rate);
        expect(result).toEqual({ ok: true, ticks: ticksFromFrame(frame, rate) });
      }),
    );
  });

  test('labels go up by one frame after another at every listed rate', () => {
    for (const rate of LISTED_RATES) {
      const labels = new Set(Array.from({ length: 20_000 }, (_, frame) => formatFrameTimecode(frame, rate)));
      expect(labels.size).toBe(20_000);
    }
  });

  test('the short form leaves out what is nothing', () => {
    expect(formatShort(ticksFromSeconds(1.4), PAL)).toBe('1:10');
    expect(formatShort(ticksFromSeconds(62), PAL)).toBe('1:02:00');
    expect(formatShort(-ticksFromSeconds(0.2), PAL)).toBe('-0:05');
  });
});

describe('typed times', () => {
  test.each([
    ['1:15', 40],
    ['00:00:01:15', 40],
    ['8f', 8],
    ['8', 8],
    ['0.5s', 12.5],
    ['250ms', 6.25],
    ['2min', 3000],
    ['.5 s', 12.5],
  ])('%s is %d frames at 25 a second', (text, frames) => {
    expect(entry(text).ticks).toBe(Math.round(frames * frameTicks(PAL)));
    expect(entry(text).relative).toBe(false);
  });

  test('a sign makes it an offset from the value that stands', () => {
    const second = ticksFromSeconds(1);
    expect(applyTimeEntry(entry('+8f'), second)).toBe(second + 8 * frameTicks(PAL));
    expect(applyTimeEntry(entry('-1s'), second)).toBe(0);
    expect(applyTimeEntry(entry('−0:05'), second)).toBe(second - 5 * frameTicks(PAL));
    expect(applyTimeEntry(entry('8f'), second)).toBe(8 * frameTicks(PAL));
  });

  test('the nearest frame and the rounding are told', () => {
    expect(entry('0.5s')).toMatchObject({ frame: 13, rounding: -frameTicks(PAL) / 2 });
    expect(entry('8f').rounding).toBe(0);
  });

  test.each(['', 'soon', '1:2:3:4:5', '1:99', '8 px', '--3f'])('“%s” is refused with what to type', (text) => {
    const result = parseTimeEntry(text, PAL);
    expect(result.ok).toBe(false);
    if (!result.ok) expect(describeEntryProblem(result.problem, PAL)).toMatch(/\. ?\S/);
  });

  test.each([
    ['1:60:00', 'There are no more than 59 seconds here. Carry the rest over to the part before.'],
    ['1:60:00:00', 'There are no more than 59 minutes here. Carry the rest over to the part before.'],
    ['0:25', 'At 25 frames a second the last frame of a second is 24. Lower the frames or write them as 25f.'],
    [
      '99999999999999999999999999f',
      'That is longer than can be held exactly. The longest time is 12765305 s, about 147 days.',
    ],
  ])('“%s” is refused for its own reason', (text, message) => {
    const result = parseTimeEntry(text, PAL);
    expect(!result.ok && describeEntryProblem(result.problem, PAL)).toBe(message);
  });

  test('frames typed come back from what is shown', () => {
    fc.assert(
      fc.property(anyRate, fc.integer({ min: -9_999, max: 9_999 }), (rate, frame) => {
        const text = formatFrames(ticksFromFrame(frame, rate), rate).replace(' ', '');
        const result = parseTimeEntry(text, rate);
        expect(result.ok && nearestFrame(result.entry.ticks, rate)).toBe(frame);
      }),
    );
  });

  test('whatever the text, it is read or refused and never throws', () => {
    fc.assert(fc.property(anyRate, fc.string(), (rate, text) => typeof parseTimeEntry(text, rate).ok === 'boolean'));
  });
});

test('a negative frame has its timecode with a sign in front', () => {
  expect(formatFrameTimecode(-26, PAL)).toBe('-00:00:01:01');
  expect(formatFrameTimecode(-1800, NTSC)).toBe('-00:01:00;02');
});

// SMPTE ST 12-1: the rates of television are 1000/1001 of whole ones (from memory).
test.each([
  [25, 1, 25],
  [30_000, 1_001, 29.97],
  [24_000, 1_001, 23.976],
])('%i/%i is %d frames a second', (num, den, expected) => expect(fps({ num, den })).toBeCloseTo(expected, 3));
