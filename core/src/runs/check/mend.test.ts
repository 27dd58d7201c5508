import { describe, expect, test } from '@jest/globals';
import { createLineUp, type Recipe } from '../../scene/recipe';
import { MOST_TICKS, ticksFromSeconds } from '../../basics/time';
import { card, key, recipeOf, sceneOf } from '../../testing/scenes';
import type { Finding } from '../finding';
import { mendsOf } from '.';

const late: Finding = { code: 'outside-scene', layers: ['b'], at: ticksFromSeconds(9), by: ticksFromSeconds(1) };
const scene = sceneOf([card('a'), card('b')]);

function drawn(end: number) {
  return sceneOf([card('a'), card('b', { tracks: { rotation: [key(0, 0), { ...key(1, 5), at: end }] } })]);
}

function labels(recipe: Recipe | null, end: number): string[] {
  return mendsOf(late, recipe, scene, drawn(end), ['a', 'b']).map(({ label }) => label);
}

describe('mends of what runs past the end', () => {
  test('the scene is made as long as is needed, to the next whole frame, and no longer than time can be held', () => {
    const mends = mendsOf(late, null, scene, drawn(ticksFromSeconds(11.01)), []);
    expect(mends[0]).toMatchObject({ label: expect.stringContaining('Lengthen the scene by 26 f') });
    expect(labels(null, ticksFromSeconds(9))).toEqual([]);
    expect(labels(null, MOST_TICKS * 2)).toEqual([]);
  });

  test('rows and cues can begin again with the first, once', () => {
    const rows = recipeOf({ spacing: { by: 'rows', rows: 2, apart: '5f', hold: '50f' } });
    const end = ticksFromSeconds(11);
    expect(labels(rows, end)).toContain('Begin again with the first');
    expect(labels(rows, end)).toContain('Take only the 1 that fit');
    const wrapped = recipeOf({ spacing: { by: 'rows', rows: 2, apart: '5f', hold: '50f', wrap: true } });
    expect(labels(wrapped, end)).not.toContain('Begin again with the first');
    expect(labels(recipeOf({ spacing: { by: 'gap', gap: '5f' } }), end)).not.toContain('Begin again with the first');
    expect(labels(createLineUp({ by: 'rule' }), end)).not.toContain('Begin again with the first');
  });
});
