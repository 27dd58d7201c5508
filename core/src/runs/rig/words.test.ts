import { describe, expect, test } from '@jest/globals';
import { createRigRecipe } from '../../scene/recipe';
import { SHELF } from '../../testing/rigs';
import { card, sceneOf } from '../../testing/scenes';
import { channelsWords, dialWords, rigParts } from './words';

describe('channels in words', () => {
  test('are one word for both axes where both are there, and each its own name else', () => {
    expect(channelsWords(['position.x', 'position.y'])).toBe('position');
    expect(channelsWords(['position.x'])).toBe('position x');
    expect(channelsWords(['position.x', 'scale.y', 'scale.x', 'rotation'])).toBe('position x, scale and rotation');
    expect(channelsWords(['rotation', 'opacity'])).toBe('rotation and opacity');
    // Not an axis, though its name has one channel beside it.
    expect(channelsWords(['fill.l', 'fill.a', 'rotation'])).not.toContain('fill,');
    expect(channelsWords([])).toBe('nothing');
  });

  test('a dial that is keyed says how many keys it has', () => {
    const key = (at: number) => ({ at, value: 1, ease: { type: 'linear' as const } });
    expect(dialWords({ by: 'keys', keys: [key(0)] })).toBe('keyed, one key');
    expect(dialWords({ by: 'keys', keys: [key(0), key(9)] })).toBe('keyed, 2 keys');
    expect(dialWords({ by: 'fixed', value: '3' })).toBe('3');
  });

  test('a rig says what its roles are, and where one is not filled yet', () => {
    const scene = sceneOf([card('a', { name: 'Lantern' }), card('b')]);
    const words = (roles: Readonly<Record<string, string>>): string => {
      const recipe = { ...createRigRecipe('rig-follow-down-the-line', { by: 'layers', layers: ['b'] }), roles };
      return rigParts(recipe, { scene, shelf: SHELF, count: 1 })
        .map(({ text }) => text)
        .join('');
    };
    expect(words({ leader: 'a' })).toContain(', leader being Lantern, ');
    const gone = createRigRecipe('rig-that-is-gone', { by: 'layers', layers: ['b'] });
    const parts = rigParts(gone, { scene, shelf: SHELF, count: 1 });
    expect(parts.find(({ field }) => field === 'channels')?.text).toBe('its channels');
    expect(words({})).toContain(', leader being no layer yet, ');
    expect(words({ leader: 'gone' })).toContain(', leader being no layer yet, ');
  });
});
