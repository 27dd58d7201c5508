import { describe, expect, test } from '@jest/globals';
import { withJump, withStrength } from './easing-numbers';

const BEZIER = { type: 'bezier', x1: 0.3, y1: 0.9, x2: 0.4, y2: 1.2 } as const;

describe('numbers of an easing', () => {
  // Strengths a and b give (a, 0, 1 - b, 1): the design's own law.
  test('a strength flattens both ends and leaves the other strength', () => {
    expect(withStrength(BEZIER, 'departure', 0.7)).toEqual({ type: 'bezier', x1: 0.7, y1: 0, x2: 0.4, y2: 1 });
    expect(withStrength(BEZIER, 'arrival', 0.25)).toEqual({ type: 'bezier', x1: 0.3, y1: 0, x2: 0.75, y2: 1 });
  });

  test('a strength is kept to four digits', () => {
    expect(withStrength(BEZIER, 'departure', 1 / 3)).toMatchObject({ x1: 0.3333 });
  });

  test('steps that jump at neither end are at least two', () => {
    const steps = { type: 'steps', count: 1, jump: 'end' } as const;
    expect(withJump(steps, 'none')).toEqual({ type: 'steps', count: 2, jump: 'none' });
    expect(withJump({ ...steps, count: 5 }, 'none')).toMatchObject({ count: 5 });
    expect(withJump(steps, 'both')).toEqual({ type: 'steps', count: 1, jump: 'both' });
  });
});
