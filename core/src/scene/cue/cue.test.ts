import { describe, expect, test } from '@jest/globals';
import { frameTicks, ticksFromSeconds } from '../../basics/time';
import { addCues, beatTimes, cuesFromCsv, cuesToCsv, intervalOfTempo, snapToCue, tempoOfTaps } from '.';

const rate = { num: 30, den: 1 };
const FRAME = frameTicks(rate);
let made = 0;
const newId = () => `cue-${++made}`;

describe('cues', () => {
  test('half-second beats at 30 fps are 15 f apart: 3:00, 3:15, 4:00, 4:15, 5:00 (common practice)', () => {
    const times = beatTimes({ first: ticksFromSeconds(3), interval: intervalOfTempo(120), count: 5 }, rate);
    expect(times.map((at) => at / FRAME)).toEqual([90, 105, 120, 135, 150]);
  });

  test('beats that are no whole number of frames do not drift', () => {
    const times = beatTimes({ first: 0, interval: intervalOfTempo(128), count: 65 }, rate);
    expect(times[64] / FRAME).toBe(Math.round((64 * 60 * 30) / 128));
    for (const at of times) expect(at % FRAME).toBe(0);
  });

  test('the tempo of uneven taps is that of the line through them', () => {
    const taps = [0, 0.52, 0.99, 1.5, 2.01, 2.49].map(ticksFromSeconds);
    expect(tempoOfTaps(taps)).toBeCloseTo(120, 0);
    expect(tempoOfTaps([5])).toBeNull();
  });

  test('new ones are numbered and put in order; a time has one cue', () => {
    const one = addCues([], [50, 10], newId);
    expect(one.map(({ name, at }) => [name, at])).toEqual([
      ['Cue 2', 10],
      ['Cue 1', 50],
    ]);
    expect(addCues(one, [10], newId)).toHaveLength(2);
    expect(snapToCue(one, 47, 5)).toBe(50);
    expect(snapToCue(one, 30, 5)).toBe(30);
  });

  test('come back from CSV as they were written', () => {
    const cues = addCues([], [0, 45 * FRAME, 100 * FRAME], newId).map((cue, i) => ({
      ...cue,
      name: `One, "two" ${i}`,
    }));
    const read = cuesFromCsv(cuesToCsv({ cues, rate }), rate, newId);
    expect(read.ok && read.cues.map(({ name, at }) => [name, at])).toEqual(cues.map(({ name, at }) => [name, at]));
  });

  test('seconds alone will do; what cannot be read says the row', () => {
    const read = cuesFromCsv('cue;seconds\nDrop;1.5', rate, newId);
    expect(read.ok && read.cues[0]).toMatchObject({ name: 'Drop', at: 45 * FRAME });
    // A timecode counts before seconds, wherever it stands, and seconds where it is empty.
    const both = cuesFromCsv('timecode,name,seconds\n45f,A,9\n,B,1.5', rate, newId);
    expect(both.ok && both.cues.map(({ name, at }) => [name, at / FRAME])).toEqual([
      ['A', 45],
      ['B', 45],
    ]);
    expect(cuesFromCsv('name,time\nA,soon', rate, newId)).toMatchObject({
      ok: false,
      message: expect.stringContaining('Row 2: “soon”'),
    });
    expect(cuesFromCsv('name,length\nA,5', rate, newId)).toMatchObject({
      ok: false,
      message: expect.stringContaining('No column'),
    });
  });
});
