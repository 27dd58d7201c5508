import { describe, expect, test } from '@jest/globals';
import { LINEAR, type Easing } from './easing';
import { easeOfHandles, handlesBetween, scaledEasing } from './handles';

const from = { at: 100, value: 20 };
const to = { at: 400, value: 80 };
const BEZIER: Easing = { type: 'bezier', x1: 0.25, y1: -0.5, x2: 0.5, y2: 1.5 };
const FREE: Easing = { type: 'handles', leave: { time: 0.25, value: 15 }, arrive: { time: 0.5, value: -9 } };

describe('handles of a segment', () => {
  test('stand where the control points of its curve are', () => {
    expect(handlesBetween(from, to, LINEAR)).toEqual({
      leave: { at: 200, value: 40 },
      arrive: { at: 300, value: expect.closeTo(60, 9) },
    });
    expect(handlesBetween(from, to, BEZIER)).toEqual({
      leave: { at: 175, value: -10 },
      arrive: { at: 250, value: 110 },
    });
    expect(handlesBetween(from, to, FREE)).toEqual({ leave: { at: 175, value: 35 }, arrive: { at: 250, value: 71 } });
  });

  test.each<[Easing]>([
    [{ type: 'hold' }],
    [{ type: 'steps', count: 4, jump: 'end' }],
    [{ type: 'spring', damping: 0.4, within: 0.01 }],
  ])('are none of %j', (ease) => expect(handlesBetween(from, to, ease)).toBeNull());
});

describe('the easing of handles', () => {
  test.each<[string, Easing]>([
    ['a Bézier', BEZIER],
    ['an even one', LINEAR],
  ])('of %s is that again', (_, ease) => {
    const handles = handlesBetween(from, to, ease);
    expect(handles && easeOfHandles(from, to, handles)).toEqual(ease);
  });

  test('between values that differ is a Bézier in shares of the way, between equal ones free handles', () => {
    const handles = { leave: { at: 175, value: 35 }, arrive: { at: 250, value: 71 } };
    expect(easeOfHandles(from, to, handles)).toEqual({ type: 'bezier', x1: 0.25, y1: 0.25, x2: 0.5, y2: 0.85 });
    const level = { ...to, value: 20 };
    expect(easeOfHandles(from, level, handles)).toEqual({
      type: 'handles',
      leave: { time: 0.25, value: 15 },
      arrive: { time: 0.5, value: 51 },
    });
    // A way so short that the handles would be more than a thousand times as far keeps them free, too.
    const near = { ...to, value: 20.01 };
    expect(easeOfHandles(from, near, handles).type).toBe('handles');
    expect(easeOfHandles(from, near, { leave: { at: 175, value: 25 }, arrive: { at: 250, value: 15 } }).type).toBe(
      'bezier',
    );
  });

  test('keeps them within the segment in time', () => {
    const beyond = { leave: { at: 40, value: 20 }, arrive: { at: 900, value: 80 } };
    expect(easeOfHandles(from, to, beyond)).toEqual({ type: 'bezier', x1: 0, y1: 0, x2: 1, y2: 1 });
    const crossed = { leave: { at: 900, value: 20 }, arrive: { at: 40, value: 80 } };
    expect(easeOfHandles(from, to, crossed)).toEqual({ type: 'bezier', x1: 1, y1: 0, x2: 0, y2: 1 });
    expect(easeOfHandles(from, { ...to, at: 100 }, crossed)).toMatchObject({ x1: 0, x2: 0 });
  });

  test('is even only where both handles stand at thirds, on the line', () => {
    const third = { leave: { at: 200, value: 40 }, arrive: { at: 300, value: 60 } };
    expect(easeOfHandles(from, to, third)).toBe(LINEAR);
    const off = [
      { ...third, leave: { at: 190, value: 38 } },
      { ...third, arrive: { at: 310, value: 62 } },
      { ...third, arrive: { at: 300, value: 61 } },
    ];
    for (const handles of off) expect(easeOfHandles(from, to, handles).type).toBe('bezier');
  });
});

test('values of free handles are multiplied, other curves have none', () => {
  expect(scaledEasing(FREE, -2)).toEqual({
    type: 'handles',
    leave: { time: 0.25, value: -30 },
    arrive: { time: 0.5, value: 18 },
  });
  expect(scaledEasing(BEZIER, -2)).toBe(BEZIER);
});
