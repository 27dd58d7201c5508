import { describe, expect, test } from '@jest/globals';
import { createShelf } from '../../library/library';
import { STARTER_LIBRARY, STARTER_RIGS } from '../../library/starter';
import { dialNumber, dialText, figuresWords, rigFigures, solveDial, tryRig } from '.';

const SHELF = createShelf(STARTER_LIBRARY);
const carry = STARTER_RIGS[0].body;
const ARRIVES = 0.4;

describe('figures of a rig', () => {
  // The damped oscillator with an initial speed (any mechanics handbook): v/ω · e^(−c·t) · sin(ω·t).
  test.each([
    [1.5, 4, 1],
    [2, 2, 0.5],
    [0.8, 1, 1.2],
  ])('of carry and settle at %d Hz, calm %d and carry %d are those of the law', (pace, calm, share) => {
    const found = rigFigures(carry, SHELF, { pace: `${pace}Hz`, calm: String(calm), carry: `${share * 100}%` });
    const omega = 2 * Math.PI * pace;
    const peak = Math.atan(omega / calm) / omega;
    const passes = (share / ARRIVES / omega) * Math.exp(-calm * peak) * Math.sin(omega * peak);
    expect(found?.peak).toBeCloseTo(peak, 2);
    expect(found?.passes).toBeCloseTo(passes, 3);
    // Each further peak is as much smaller as half a swing takes away; those of more than 1 % are counted.
    const less = Math.exp((-calm * Math.PI) / omega);
    expect(found?.swings).toBe(Math.floor(Math.log(passes / 0.01) / -Math.log(less)) + 1);
    // It is calm no later than its envelope says, ln(100 · amount) ÷ calm.
    const envelope = Math.log((share / ARRIVES / omega) * 100) / calm;
    expect(found?.settles).toBeLessThanOrEqual(envelope + 0.01);
    expect(found?.settles).toBeGreaterThan(envelope - 1 / pace);
  });

  test('of what comes after its goal count no swing on the way there, only those past it and back', () => {
    const follower = STARTER_RIGS.find(({ body }) => body.formulas[0].text.startsWith('chase('))?.body;
    if (!follower) throw new Error('no rig that chases');
    const calm = { pace: '3Hz', damping: '1' };
    const [figures, valueAt] = [rigFigures(follower, SHELF, calm), tryRig(follower, SHELF, calm)];
    expect(figures).toMatchObject({ passes: 0, peak: null, swings: 0 });
    const settled = figures?.settles ?? NaN;
    expect(Math.abs((valueAt?.(ARRIVES + settled) ?? 0) - 100)).toBeLessThanOrEqual(1);
    expect(Math.abs((valueAt?.(ARRIVES + settled - 0.02) ?? 0) - 100)).toBeGreaterThan(1);
    // Loosely: a stretch on one side counts where it goes further than 1 %, but for the one before the goal is met.
    const loose = { pace: '2Hz', damping: '0.25' };
    const loosely = tryRig(follower, SHELF, loose);
    const reaches = [0];
    let before = -1;
    for (let i = 0; i <= 6_000; i++) {
      const offset = ((loosely?.(ARRIVES + i / 1_000) ?? 100) - 100) / 100;
      if (Math.sign(offset) !== before && offset !== 0) [before] = [Math.sign(offset), reaches.push(0)];
      reaches[reaches.length - 1] = Math.max(reaches[reaches.length - 1], Math.abs(offset));
    }
    const counted = reaches.slice(1).filter((reach) => reach > 0.01).length;
    expect(counted).toBeGreaterThan(2);
    expect(rigFigures(follower, SHELF, loose)).toMatchObject({
      swings: counted,
      passes: expect.closeTo(reaches[1], 3),
    });
    // So loosely that it does not come to rest while it is watched.
    expect(rigFigures(follower, SHELF, { pace: '2Hz', damping: '0.01' })?.settles).toBeNull();
  });

  test('are said in words', () => {
    expect(figuresWords({ passes: 0.12, peak: 0.11, swings: 2, settles: 0.9 })).toEqual([
      'passes by 12 % of the way',
      'first peak 0.11 s (3 f) after it arrives',
      '2 swings',
      'within 1 % after 0.90 s',
    ]);
    expect(figuresWords({ passes: 0, peak: null, swings: 0, settles: null })).toEqual([
      'does not pass the goal',
      'no swing',
      'still moving after 6 s',
    ]);
    // Below a tenth a decimal tells more; a peak of a tenth of a percent is none to be seen.
    expect(figuresWords({ passes: 0.099, peak: 0.5, swings: 1, settles: 1 })).toEqual([
      'passes by 9.9 % of the way',
      'first peak 0.50 s (13 f) after it arrives',
      'one swing',
      'within 1 % after 1.00 s',
    ]);
    expect(figuresWords({ passes: 0.1, peak: null, swings: 1, settles: 1 })[0]).toBe('passes by 10 % of the way');
    expect(figuresWords({ passes: 0.001, peak: 0.5, swings: 1, settles: 1 })).toEqual([
      'does not pass the goal',
      'one swing',
      'within 1 % after 1.00 s',
    ]);
  });

  test('solve a dial by what one wants to see, between its soft limits', () => {
    const solved = solveDial(carry, SHELF, 'carry', { figure: 'passes', value: 0.12 });
    expect(solved).toMatch(/^\d+(\.\d+)?%$/);
    expect(rigFigures(carry, SHELF, { carry: solved ?? '' })?.passes).toBeCloseTo(0.12, 3);
    const calm = solveDial(carry, SHELF, 'calm', { figure: 'settles', value: 0.6 });
    // With less calm a swing more counts, so that the time jumps: it is never more than was wished.
    const settles = rigFigures(carry, SHELF, { calm: calm ?? '' })?.settles ?? 9;
    expect(settles).toBeLessThanOrEqual(0.61);
    expect(settles).toBeGreaterThan(0.4);
    // Limits that do not begin at 0: what lies between them is found, and nothing beyond.
    const between = (from: string, to: string) => {
      const dials = carry.dials.map((dial) => (dial.name === 'carry' ? { ...dial, from, to } : dial));
      return solveDial({ ...carry, dials }, SHELF, 'carry', { figure: 'passes', value: 0.12 });
    };
    const share = Number.parseFloat(solved ?? '');
    expect(Number.parseFloat(between(`${share - 5}%`, `${share + 5}%`) ?? '')).toBeCloseTo(share, 1);
    expect(between(`${share + 2}%`, `${share + 5}%`)).toBeNull();
    expect(between(`${share - 5}%`, `${share - 2}%`)).toBeNull();
    expect(solveDial(carry, SHELF, 'carry', { figure: 'passes', value: 9 })).toBeNull();
    expect(solveDial(carry, SHELF, 'nothing', { figure: 'passes', value: 0.1 })).toBeNull();
  });
});

test('dials are read and written in their own units', () => {
  const rate = { num: 25, den: 1 };
  const kinds = ['percent', 'time', 'length', 'angle', 'frequency', 'number'] as const;
  const texts = ['12%', '5f', '30px', '45deg', '1.5Hz', '3'];
  const numbers = [0.12, 0.2, 30, 45, 1.5, 3];
  kinds.forEach((kind, i) => {
    expect(dialNumber({ kind }, texts[i], rate)).toBeCloseTo(numbers[i], 12);
    expect(dialText({ kind }, numbers[i], rate)).toBe(texts[i]);
  });
  expect(dialText({ kind: 'time' }, 0.2)).toBe('0.2s');
  expect(dialNumber({ kind: 'choice' }, 'left')).toBeNull();
  expect(dialNumber({ kind: 'choice' }, '12')).toBeNull();
  expect(dialNumber({ kind: 'length' }, undefined)).toBeNull();
  expect(dialNumber({ kind: 'length' }, 'layer.width')).toBeNull();
});
